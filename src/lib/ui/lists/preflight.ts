import type { Finding } from '$lib/core/proof';

/** What of an entry of a list counts before the list goes out. */
export interface Checked {
  findings: Pick<Finding, 'pencil'>[];
  /** Fields the style prints and the record has not. */
  missing: string[];
  /** The pair it may be one work with, both of it in the list. */
  twice?: { a: string; b: string } | undefined;
  /** A work it belongs together with, in the list too. */
  beside?: { id: string; words: string } | undefined;
}

/** What is to be said of a list before it goes out, gravest first. An entry counts once, for the gravest it has. */
export function preflight(entries: Checked[]): { words: string; pencil: string }[] {
  let [wrong, asked, lacking] = [0, 0, 0];
  for (const { findings, missing, twice, beside } of entries)
    if (findings.some((f) => f.pencil === 'red')) wrong++;
    else if (findings.length || twice || beside) asked++;
    else if (missing.length) lacking++;
  return [
    ...(wrong ? [{ words: `${wrong} will print wrong`, pencil: 'pencil-red' }] : []),
    ...(asked ? [{ words: `${asked} to ask about`, pencil: 'pencil-blue' }] : []),
    ...(lacking
      ? [{ words: `${lacking} ${lacking === 1 ? 'lacks' : 'lack'} what this style prints`, pencil: '' }]
      : []),
  ];
}
