/** Something there may be much of: how much in all, and the first of it, which are shown. */
export interface FirstOf<T> {
  total: number;
  items: T[];
}
