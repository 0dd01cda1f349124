import { z } from 'zod';
import {
  boxOfFragment,
  boxOfSvg,
  boxToSvg,
  figureWords,
  type Box,
  type Figure,
  type FigureWords,
} from '../figures';
import {
  fragmentOfStint,
  locator,
  locatorOfStint,
  MOST_STRETCHES,
  PASSAGE_KINDS,
  stintOf,
  stintOfFragment,
  TINTS,
  type Locator,
  type PassageKind,
  type Selectors,
  type Tint,
} from '../passages';
import { nfc, withoutControls } from '../text';

/** The context of the W3C Web Annotation vocabulary. Source: Web Annotation Data Model (W3C Recommendation 23 February 2017), 3.1. */
const CONTEXT = 'http://www.w3.org/ns/anno.jsonld';
/** How a page of a PDF is named by a fragment. Source: RFC 8118, 3; Web Annotation Data Model, 4.2.1. */
const PDF_FRAGMENT = 'http://tools.ietf.org/rfc/rfc3778';
/** How a time in a recording is named by a fragment. Source: Media Fragments URI 1.0; Web Annotation Data Model, 4.2.1. */
const MEDIA_FRAGMENT = 'http://www.w3.org/TR/media-frags/';
/** The key under which is kept what the model has no word for. */
const OURS = 'retexa';

/** A passage as an annotation says it. */
export interface Annotated {
  id: string;
  kind: PassageKind;
  tint: Tint;
  exact: string;
  wording: string | null;
  selectors: Selectors | null;
  /** Where its words go on, behind those that are left out. */
  further: readonly Selectors[];
  figure: Figure | null;
  gist: string;
  ownWords: string;
  locator: Locator | null;
  tags: string[];
  /** UTC, ISO 8601. */
  added: string;
}

/** The document annotated: its address, and what it is. */
export interface AnnotatedDocument {
  address: string;
  title: string;
  mediaType: string;
  /** The person whose annotations they are. */
  creator: string;
  /** For each passage, the leaf of the document it begins on, counted from 1, where it has leaves. */
  leafOf?: ReadonlyMap<string, number>;
  /** The addresses of the pictures of a page, by their SHA-256. */
  pictures?: ReadonlyMap<string, string>;
  /** What was said to passages, by the passage. */
  replies?: ReadonlyMap<string, readonly AnnotatedReply[]>;
}

/** What somebody said to a passage. */
export interface AnnotatedReply {
  id: string;
  by: string;
  text: string;
  /** UTC, ISO 8601. */
  added: string;
}

/** What an annotation is for. Source: Web Annotation Data Model, 3.3.5, motivations. */
const MOTIVATION: Record<PassageKind, string> = {
  quotation: 'highlighting',
  paraphrase: 'describing',
  summary: 'describing',
  response: 'commenting',
  mark: 'highlighting',
  figure: 'highlighting',
};

/** A passage as an annotation (Web Annotation Data Model, 3.1; selectors 4.2.4, 4.2.5, refined as 4.2.9 has it). */
export function annotationOf(passage: Annotated, document: AnnotatedDocument): Record<string, unknown> {
  const { kind, selectors, exact } = passage;
  const text = (value: string, purpose: string) => ({
    type: 'TextualBody',
    value: withoutControls(value),
    format: 'text/plain',
    purpose,
  });
  const quote = selectors
    ? { type: 'TextQuoteSelector', ...selectors.quote }
    : exact
      ? { type: 'TextQuoteSelector', exact }
      : undefined;
  const position = selectors && { type: 'TextPositionSelector', ...selectors.position };
  const { figure } = passage;
  const place = figure?.place;
  const region = place && { type: 'SvgSelector', value: boxToSvg(place.box) };
  const leaf = place?.on === 'leaf' ? place.leaf : document.leafOf?.get(passage.id);
  const within = region ?? quote;
  const page = leaf && {
    type: 'FragmentSelector',
    conformsTo: PDF_FRAGMENT,
    value: `page=${leaf}`,
    ...(within ? { refinedBy: within } : {}),
  };
  const stint = selectors || place ? undefined : stintOf(passage.locator);
  const time = stint && {
    type: 'FragmentSelector',
    conformsTo: MEDIA_FRAGMENT,
    value: fragmentOfStint(stint),
  };
  // A picture has an address of its own, and its words are said in the body.
  const picture = place?.on === 'picture' ? document.pictures?.get(place.sha256) : undefined;
  const selector = (time ? [time] : [page ?? within, position]).filter(
    (one) => one !== null && one !== undefined,
  );
  const source = picture || document.address || `urn:retexa:${document.title}`;
  const targets = [
    {
      type: 'SpecificResource',
      source,
      ...(selector.length ? { selector: selector.length === 1 ? selector[0] : selector } : {}),
    },
    ...passage.further.map(({ quote: words, position: place }) => ({
      type: 'SpecificResource',
      source,
      selector: [
        { type: 'TextQuoteSelector', ...words },
        { type: 'TextPositionSelector', ...place },
      ],
    })),
  ];
  return {
    '@context': CONTEXT,
    id: `urn:uuid:${passage.id}`,
    type: 'Annotation',
    motivation: MOTIVATION[kind],
    created: passage.added,
    creator: { type: 'Person', name: document.creator },
    body: [
      ...(passage.gist ? [text(passage.gist, 'describing')] : []),
      ...(figure && exact ? [text([figure.number, exact].filter(Boolean).join('. '), 'describing')] : []),
      ...(passage.ownWords
        ? [text(passage.ownWords, kind === 'response' ? 'commenting' : 'describing')]
        : []),
      ...passage.tags.map((tag) => text(tag, 'tagging')),
    ],
    target: targets.length === 1 ? targets[0] : targets,
    [OURS]: {
      kind,
      tint: passage.tint,
      gist: passage.gist,
      ownWords: passage.ownWords,
      ...(passage.locator ? { locator: passage.locator } : {}),
      ...(passage.wording === null ? {} : { wording: passage.wording }),
      ...(figure
        ? {
            figure: {
              number: figure.number,
              alt: figure.alt,
              drawing: figure.drawing,
              caption: exact,
              ...(place?.on === 'picture' ? { picture: place.sha256 } : {}),
            },
          }
        : {}),
    },
  };
}

/** What was said to a passage, as an annotation of its annotation (Web Annotation Data Model, 3.3.5: `replying`). */
const replyTo = (passage: Pick<Annotated, 'id'>, { id, by, text, added }: AnnotatedReply) => ({
  id: `urn:uuid:${id}`,
  type: 'Annotation',
  motivation: 'replying',
  created: added,
  creator: { type: 'Person', name: by },
  body: { type: 'TextualBody', value: withoutControls(text), format: 'text/plain', purpose: 'replying' },
  target: `urn:uuid:${passage.id}`,
});

/** Passages of a document as one page of annotations (Web Annotation Data Model, 5.2). */
export function annotationPage(
  passages: readonly Annotated[],
  document: AnnotatedDocument,
): Record<string, unknown> {
  return {
    '@context': CONTEXT,
    id: `urn:retexa:annotations:${passages[0]?.id ?? 'none'}`,
    type: 'AnnotationPage',
    label: document.title,
    items: passages.flatMap((passage) => {
      const { '@context': _context, ...annotation } = annotationOf(passage, document);
      return [annotation, ...(document.replies?.get(passage.id) ?? []).map((said) => replyTo(passage, said))];
    }),
  };
}

/** An annotation that was read, before it is looked for in a document. */
export interface ReadAnnotation {
  /** Which of the file it is, counted from 1. */
  nth: number;
  kind: PassageKind;
  tint: Tint;
  gist: string;
  ownWords: string;
  tags: string[];
  locator: Locator | null;
  wording: string | null;
  /** The words it is on, with what is around them; none for one on the whole document. */
  quote: { exact: string; prefix: string; suffix: string } | null;
  /** In code points of the document's text, where it is said. */
  position: { start: number; end: number } | null;
  /** Where its words go on, on further targets of it. */
  further: { quote: { exact: string; prefix: string; suffix: string } }[];
  /** The leaf of the document it is on, counted from 1, where it is said. */
  leaf: number | null;
  /** The part of a picture or of the leaf it is on, with what is said of it; `picture` is its address or its SHA-256. */
  region: (FigureWords & { box: Box; caption: string; picture: string }) | null;
}

/** What was read, and what could not be, each with which annotation and why. */
export interface ReadAnnotations {
  annotations: ReadAnnotation[];
  problems: { nth: number; reason: string }[];
}

type Json = Record<string, unknown>;
const isObject = (value: unknown): value is Json =>
  typeof value === 'object' && value !== null && !Array.isArray(value);
const listOf = (value: unknown): unknown[] =>
  value === undefined || value === null ? [] : Array.isArray(value) ? (value as unknown[]) : [value];
const textOf = (value: unknown, most: number): string =>
  typeof value === 'string' ? nfc(withoutControls(value)).slice(0, most) : '';
/** A name with or without the prefix of the vocabulary it is of. */
const nameOf = (value: unknown): string => (typeof value === 'string' ? value.replace(/^.*[:#/]/, '') : '');

/** The annotations of a file: one, several, a page or a collection of them. */
function itemsOf(value: unknown, deep = 10): unknown[] {
  if (Array.isArray(value) && deep > 0) return value.flatMap((one) => itemsOf(one, deep - 1));
  if (!isObject(value)) return [value];
  if ('items' in value) return listOf(value.items);
  if ('first' in value && deep > 0) return itemsOf(value.first, deep - 1);
  return [value];
}

/** All selectors of a target, with those that refine others (Web Annotation Data Model, 4.2.9), at most so deep. */
function selectorsOf(selector: unknown, deep = 5): Json[] {
  return listOf(selector)
    .filter(isObject)
    .flatMap((one) => [
      one,
      ...(deep > 0 ? selectorsOf(one.refinedBy, deep - 1) : []),
      ...(nameOf(one.type) === 'Choice' && deep > 0 ? selectorsOf(one.items, deep - 1) : []),
    ]);
}

const KINDS_BY_MOTIVATION = new Map<string, PassageKind>([
  ['commenting', 'response'],
  ['replying', 'response'],
  ['questioning', 'response'],
  ['assessing', 'response'],
  ['describing', 'summary'],
]);

const ours = z.object({
  kind: z.enum(PASSAGE_KINDS).optional().catch(undefined),
  tint: z.enum(TINTS).optional().catch(undefined),
  gist: z.string().max(1_000).optional().catch(undefined),
  ownWords: z.string().max(50_000).optional().catch(undefined),
  locator: locator.optional().catch(undefined),
  wording: z.string().max(50_000).optional().catch(undefined),
  figure: figureWords
    .extend({ caption: z.string().max(50_000), picture: z.string().max(64).optional() })
    .optional()
    .catch(undefined),
});

const wholeNumber = (value: unknown): number | undefined =>
  typeof value === 'number' && Number.isInteger(value) && value >= 0 ? value : undefined;

const quoteOf = (selector: Json) => ({
  exact: textOf(selector.exact, 50_000),
  prefix: textOf(selector.prefix, 1_000),
  suffix: textOf(selector.suffix, 1_000),
});

/** The part of a picture or a page that is meant, and the address of what it is a part of. */
function regionOf(
  selectors: readonly Json[],
  targets: readonly unknown[],
): { box: Box; address: string } | undefined {
  const [target] = targets;
  const address = textOf(isObject(target) ? (target.source ?? target.id) : target, 4_000);
  const boxes = selectors.map((one) =>
    nameOf(one.type) === 'SvgSelector'
      ? boxOfSvg(textOf(one.value, 100_000))
      : nameOf(one.type) === 'FragmentSelector'
        ? boxOfFragment(textOf(one.value, 200))
        : undefined,
  );
  const box = boxes.find(Boolean) ?? boxOfFragment(/#.*$/s.exec(address)?.[0] ?? '');
  return box && { box, address: address.replace(/#.*$/s, '') };
}

function read(value: unknown, nth: number): ReadAnnotation | string {
  if (!isObject(value)) return 'it is no object';
  if (!listOf(value.type ?? value['@type']).some((type) => nameOf(type) === 'Annotation'))
    return 'its type is not Annotation';
  const said = ours.safeParse(value[OURS] ?? {}).data ?? {};
  const bodies = [...listOf(value.body), ...listOf(value.bodyValue)];
  const [tags, words]: [string[], string[]] = [[], []];
  for (const body of bodies) {
    const text = textOf(isObject(body) ? (body.value ?? body.chars) : body, 50_000).trim();
    if (!text) continue;
    if (isObject(body) && listOf(body.purpose).some((p) => nameOf(p) === 'tagging'))
      tags.push(text.slice(0, 120));
    else if (isObject(body) || value.bodyValue === body) words.push(text);
  }
  const targets = listOf(value.target);
  if (targets.length === 0) return 'it has no target';
  const all = targets.flatMap((target) => (isObject(target) ? selectorsOf(target.selector) : []));
  const of = (type: string) => all.filter((one) => nameOf(one.type) === type);
  const [quote] = of('TextQuoteSelector');
  const further = targets.slice(1, MOST_STRETCHES).flatMap((target) => {
    const words = (isObject(target) ? selectorsOf(target.selector) : []).find(
      (one) => nameOf(one.type) === 'TextQuoteSelector',
    );
    return words && quote && words !== quote ? [{ quote: quoteOf(words) }] : [];
  });
  const [place] = of('TextPositionSelector');
  const [start, end] = [wholeNumber(place?.start), wholeNumber(place?.end)];
  const exact = textOf(quote?.exact, 50_000);
  const page = of('FragmentSelector')
    .map((one) => /(?:^|&)page=(\d{1,6})(?:&|$)/.exec(textOf(one.value, 200))?.[1])
    .find(Boolean);
  const time = of('FragmentSelector')
    .map((one) => stintOfFragment(textOf(one.value, 200)))
    .find(Boolean);
  const region = exact ? undefined : regionOf(all, targets);
  const motivation = listOf(value.motivation).map(nameOf);
  const kind =
    (region ? 'figure' : said.kind === 'figure' ? undefined : said.kind) ??
    motivation.map((name) => KINDS_BY_MOTIVATION.get(name)).find(Boolean) ??
    (!exact ? 'response' : words.length || motivation.includes('highlighting') ? 'quotation' : 'mark');
  return {
    nth,
    kind,
    tint: said.tint ?? 'claim',
    gist: said.gist ?? '',
    ownWords: said.ownWords ?? words.join('\n\n').slice(0, 50_000),
    tags: [...new Set(tags)].slice(0, 50),
    locator: said.locator ?? (time ? locatorOfStint(time) : null),
    wording: said.wording ?? null,
    quote: exact && quote ? quoteOf(quote) : null,
    further: further.filter((one) => one.quote.exact),
    position: start !== undefined && end !== undefined && end > start ? { start, end } : null,
    leaf: page ? Number(page) : null,
    region: region
      ? {
          box: region.box,
          picture: said.figure?.picture ?? region.address,
          number: said.figure?.number ?? '',
          alt: said.figure?.alt ?? '',
          drawing: said.figure?.drawing ?? [],
          caption: said.figure?.caption ?? '',
        }
      : null,
  };
}

/** Reads annotations of the W3C model from JSON-LD: one, a list, a page or a collection. Throws where it is no JSON. */
export function readAnnotations(json: string): ReadAnnotations {
  let value: unknown;
  try {
    value = JSON.parse(json);
  } catch (error) {
    throw new Error(`The file is no JSON: ${(error as Error).message}`, { cause: error });
  }
  const found: ReadAnnotations = { annotations: [], problems: [] };
  const items = itemsOf(value);
  const ids = new Set(items.map((item) => isObject(item) && item.id).filter(Boolean));
  for (const [i, item] of items.entries()) {
    const answers = isObject(item) && typeof item.target === 'string' && ids.has(item.target);
    const one = answers ? 'it answers another of them, and is no passage' : read(item, i + 1);
    if (typeof one === 'string') found.problems.push({ nth: i + 1, reason: one });
    else found.annotations.push(one);
  }
  return found;
}
