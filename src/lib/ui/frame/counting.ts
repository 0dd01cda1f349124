/** How many there are, in words: `1 source`, `1,204 sources`. */
export const countOf = (n: number, one: string, many = `${one}s`): string =>
  `${n.toLocaleString('en')} ${n === 1 ? one : many}`;
