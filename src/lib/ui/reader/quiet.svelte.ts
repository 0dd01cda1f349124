import { z } from 'zod';

/** How a document is set for reading; of what has pages of its own, only how large they are. */
const settings = z.object({
  /** Width of a column of text, in characters. */
  width: z.enum(['narrow', 'medium', 'wide']).default('medium'),
  /** Size of the letters, in pixels. */
  size: z.number().int().min(13).max(28).default(17),
  face: z.enum(['serif', 'sans']).default('serif'),
  spacing: z.enum(['close', 'usual', 'open']).default('usual'),
  paper: z.enum(['as the rest', 'white', 'warm', 'dark']).default('as the rest'),
  /** How large pages are drawn, of their width that fits: 1 is as wide as there is room. */
  zoom: z.number().min(0.4).max(4).default(1),
  /** Whether a whole page fits what is seen, or its width does. */
  fit: z.enum(['width', 'page']).default('width'),
  twoUp: z.boolean().default(false),
});
export type Quiet = z.infer<typeof settings>;
const NAME = 'retexa-reading';

function remembered(): Quiet {
  try {
    return settings.parse(JSON.parse(localStorage.getItem(NAME) ?? '{}'));
  } catch {
    return settings.parse({});
  }
}

let now = $state.raw<Quiet | undefined>();

/** How this person reads, remembered in the browser. */
export const quiet = {
  get now(): Quiet {
    return now ?? settings.parse({});
  },
  /** Reads what is remembered; in the browser only. */
  recall(): void {
    now ??= remembered();
  },
  set(change: Partial<Quiet>): void {
    now = settings.parse({ ...quiet.now, ...change });
    localStorage.setItem(NAME, JSON.stringify(now));
  },
  reset(): void {
    now = settings.parse({});
    localStorage.removeItem(NAME);
  },
};

const WIDTHS: Record<Quiet['width'], string> = { narrow: '34em', medium: '39em', wide: '54em' };
const SPACINGS: Record<Quiet['spacing'], string> = { close: '1.42', usual: '1.62', open: '1.9' };

const FACES: Record<Quiet['face'], string> = {
  serif: "'Source Serif 4',Georgia,serif",
  sans: "'Hanken Grotesk Variable',sans-serif",
};

const sheetOf = ({ width, size, face, spacing }: Quiet): string =>
  `:root{--read-width:${WIDTHS[width]};--read-size:${size}px;--read-spacing:${SPACINGS[spacing]};--read-face:${FACES[face]}}`;

/** The sheet that is ours in each document, so that nothing is written into what is stored, and what it says. */
const sheets = new WeakMap<Document, { sheet: CSSStyleSheet; says: string }>();

/** Sets a page in its frame as it is to be read. */
export function setQuietly(doc: Document, as: Quiet): void {
  const view = doc.defaultView as (Window & typeof globalThis) | null;
  const says = sheetOf(as);
  // What is said again has all of the page laid out again; a page is set by default as nobody changed it.
  const last = sheets.get(doc);
  if (view && says !== (last?.says ?? sheetOf(settings.parse({})))) {
    const sheet = last?.sheet ?? new view.CSSStyleSheet();
    if (!last) doc.adoptedStyleSheets = [...doc.adoptedStyleSheets, sheet];
    sheets.set(doc, { sheet, says });
    sheet.replaceSync(says);
  }
  const { paper } = as;
  const { classList } = doc.documentElement;
  const dark =
    paper === 'dark' || (paper === 'as the rest' && document.documentElement.classList.contains('dark'));
  classList.toggle('dark', dark);
  classList.toggle('warm', paper === 'warm');
}
