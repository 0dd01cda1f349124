/** A stretch of text on a leaf. `x` is its left edge, `y` its base line from the top, in points like its size. */
export interface Run {
  text: string;
  x: number;
  y: number;
  width: number;
  size: number;
}

/** One page as it lies in the file, in points. */
export interface Leaf {
  width: number;
  height: number;
  runs: Run[];
}

/** What a document says of itself beside its pages: its information dictionary and XMP, keys as they are there. */
export interface DocumentData {
  info: Record<string, string>;
  xmp: Record<string, string | string[]>;
}
