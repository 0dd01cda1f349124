/** How many there are, in words: `1 source`, `1,204 sources`. */
export const countOf = (n: number, one: string, many = `${one}s`): string =>
  `${n.toLocaleString('en')} ${n === 1 ? one : many}`;

/** Sources and passages, in words, those there are none of left out: `2 sources and 1 passage`. */
export const placesOf = ({ sources, passages }: { sources: number; passages: number }): string =>
  [
    ...(sources ? [countOf(sources, 'source')] : []),
    ...(passages ? [countOf(passages, 'passage')] : []),
  ].join(' and ');
