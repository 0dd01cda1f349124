import type { Output } from './outputs';
import { RELATION_LABELS } from '../../core/duplicates';
import {
  annotated,
  grouped,
  HEADING,
  htmlDocument,
  KIND_HEADINGS,
  kindOf,
  latexDocument,
  listToHtml,
  listToText,
  markdownDocument,
  missingFor,
  rtfDocument,
  runsToHtml,
  type AnnotationKind,
  type PrintedList,
  type Remark,
} from '../../core/citing';
import { FORMATS, type FormatName, type Loss } from '../../core/formats';
import { credibilityText, shortLabel, type Variable } from '../../core/source';
import { plain } from '../../core/text';
import type { Context } from '../access/context';
import { Refusal } from '../access/refusal';
import { passagesOfSources } from '../passages/repository';
import { placedIn, placements } from '../projects/sections';
import { getSources, sourcesByKeys, type Source } from '../sources/repository';
import { read, write } from '../workers/pools';
import { styleName } from './catalogue';
import { pairsInGroups } from '../duplicates/groups';
import { relationsOf } from '../duplicates/relations';
import { printedFields, printList, shown, termsOf, tellApart, type Look } from './printing';
import { listIds } from '../sources';

export type { FirstOf } from './first-of';
export {
  printCitation,
  printedFields,
  printEach,
  printPreview,
  type Look,
  type ShownReference,
} from './printing';
export { findStyles, styleName, styleSaid, styleSent, type FoundStyle } from './catalogue';
export { bringStyle, changeStyle } from './styles';
export { listOfView, savedList, toldOfView } from './apart';
export { printTraced, type TracedStyle } from './tracing';

export * from './outputs';
export * from './requests';

/** Which sources a list holds. */
export type Scope =
  | { kind: 'library' }
  | { kind: 'project'; projectId: string }
  | { kind: 'section'; sectionId: string }
  | { kind: 'tag'; tag: string; projectId?: string | undefined }
  | { kind: 'selection'; ids: string[] };

/** How a list is set: under which heading, grouped by kind of source or by section, and with what under its entries. */
export interface Setting {
  heading?: string | undefined;
  group?: 'kind' | 'section' | undefined;
  annotate?: AnnotationKind[] | undefined;
}

/** What a list is known by where it is printed, so that it is printed again as far as it changed. */
const nameOf = (scope: Scope): string =>
  scope.kind === 'selection' ? scope.kind : JSON.stringify(Object.values(scope));

/** The sources of a scope, in the order of their authors. */
export async function sourcesIn(ctx: Context, scope: Scope): Promise<Source[]> {
  const ids = await idsIn(ctx, scope);
  const sources = await getSources(ctx, ids);
  return sources.filter((s) => !s.binned && !s.mergedInto);
}

function idsIn(ctx: Context, scope: Scope): string[] | Promise<string[]> {
  switch (scope.kind) {
    case 'selection':
      return scope.ids;
    case 'section':
      return placedIn(ctx, scope.sectionId);
    case 'tag':
      return listIds(ctx, { tag: scope.tag, ...(scope.projectId ? { projectId: scope.projectId } : {}) });
    case 'project':
      return listIds(ctx, { projectId: scope.projectId });
    case 'library':
      return listIds(ctx, {});
  }
}

/** A list set as asked for. Of passages only those that all of the library may see are printed. */
async function set(
  ctx: Context,
  list: PrintedList,
  sources: Source[],
  scope: Scope,
  { locale }: Look,
  { group, annotate = [] }: Setting,
): Promise<PrintedList> {
  let made = list;
  if (group === 'kind') {
    const kinds = new Map(sources.map((s) => [s.id, kindOf(s.record.type)]));
    made = grouped(made, (id) => kinds.get(id), KIND_HEADINGS, 'Other');
  } else if (group === 'section') {
    const { sections, placed } = await placements(ctx, 'projectId' in scope ? scope.projectId : undefined);
    made = grouped(
      made,
      (id) => placed.get(id),
      sections.map((s) => s.name),
      'In no section',
    );
  }
  if (!annotate.length) return made;
  return annotated(made, await remarksOn(ctx, sources, annotate, locale), await termsOf(locale));
}

/** The list of a scope as it prints, set as asked for. */
export async function listIn(
  ctx: Context,
  scope: Scope,
  look: Look,
  setting: Setting = {},
): Promise<PrintedList> {
  const sources = await sourcesIn(ctx, scope);
  return set(ctx, await printList(ctx, sources, look, nameOf(scope)), sources, scope, look, setting);
}

async function remarksOn(
  ctx: Context,
  sources: Source[],
  wanted: AnnotationKind[],
  locale: string,
): Promise<Map<string, Remark[]>> {
  const of = new Map<string, Remark[]>();
  for (const { sourceId, kind, gist, ownWords, exact, locator, visibility } of await passagesOfSources(
    ctx,
    sources.map((s) => s.id),
  )) {
    if (visibility === 'private') continue;
    const lines: Remark[] = [];
    const line = (of: AnnotationKind, text: string) => {
      if (wanted.includes(of) && text.trim())
        lines.push({ kind: of, text: text.trim(), ...(locator ? { locator } : {}) });
    };
    line('gist', gist);
    if (kind === 'quotation') line('quotation', exact);
    line('own words', ownWords);
    if (lines.length) of.set(sourceId, [...(of.get(sourceId) ?? []), ...lines]);
  }
  if (wanted.includes('credibility'))
    for (const { id, record } of sources) {
      const text = credibilityText(record.retexa.credibility ?? {}, locale);
      if (text) of.set(id, [{ kind: 'credibility', text }, ...(of.get(id) ?? [])]);
    }
  return of;
}

/** Which sources a text cites by their citekeys, and which keys no source has. Keys of merged sources lead to the survivor. */
export async function citedIn(ctx: Context, text: string): Promise<{ ids: string[]; unknown: string[] }> {
  const ids: string[] = [];
  const unknown: string[] = [];
  const keys = await read({ task: 'cited', text });
  const known = await sourcesByKeys(ctx, keys);
  for (const key of keys) {
    const id = known.get(key);
    if (id) ids.push(id);
    else unknown.push(key);
  }
  return { ids: [...new Set(ids)], unknown };
}

/** A list as the page shows it, with the preflight: findings of what it holds, and what may stand in it twice. */
export async function referenceList(ctx: Context, scope: Scope, look: Look, setting: Setting = {}) {
  const sources = await sourcesIn(ctx, scope);
  const byId = new Map(sources.map((s) => [s.id, s]));
  const printed = await printList(ctx, sources, look, nameOf(scope));
  const list = await set(ctx, printed, sources, scope, look, setting);
  const asks = new Map<string, Variable[]>();
  for (const type of new Set(sources.map((s) => s.record.type)))
    asks.set(type, await printedFields(ctx, look.style, type));
  const missing = (source: Source | undefined) => {
    if (!source) return [];
    const said = new Set(source.findings.map((f) => f.field));
    return missingFor(asks.get(source.record.type) ?? [], source.record).filter((f) => !said.has(f));
  };
  const twice = new Map<string, { a: string; b: string }>();
  for (const { a, b } of await pairsInGroups(ctx, [...byId.keys()]))
    if (byId.has(a) && byId.has(b)) for (const id of [a, b]) if (!twice.has(id)) twice.set(id, { a, b });
  const beside = new Map<string, { id: string; words: string }>();
  for (const { a, b, kind } of await relationsOf(ctx, [...byId.keys()]))
    for (const [id, other] of [
      [a, b],
      [b, a],
    ] as const)
      if (byId.has(id) && byId.has(other))
        beside.set(id, {
          id: other,
          words: `Cited beside ${RELATION_LABELS[kind]}: ${shortLabel(byId.get(other)!.record)}`,
        });
  const entries = list.entries.map((e) => ({
    ...shown(e),
    heading: e.heading,
    annotations: e.annotations,
    findings: byId.get(e.id)?.findings ?? [],
    missing: missing(byId.get(e.id)),
    twice: twice.get(e.id),
    beside: beside.get(e.id),
    label: e.label,
    ...(e.failed !== undefined && byId.has(e.id) ? { name: shortLabel(byId.get(e.id)!.record) } : {}),
  }));
  return {
    entries,
    hangingIndent: list.hangingIndent,
    hasList: list.hasList,
    total: sources.length,
    ...copies(list),
  };
}

/** What tells the works of a list apart that would be cited in the same words, each with its title. */
export async function toldApart(ctx: Context, scope: Scope, look: Look) {
  const sources = await sourcesIn(ctx, scope);
  const titles = new Map(
    sources.map(({ id, record }) => [id, plain(record.title ?? '') || shortLabel(record)]),
  );
  const { groups, ...told } = await tellApart(ctx, sources, look, nameOf(scope));
  return {
    ...told,
    groups: groups.map((group) =>
      group.map(({ alone, now, ...work }) => ({
        ...work,
        title: titles.get(work.id) ?? '',
        alone: runsToHtml(alone),
        now: runsToHtml(now),
      })),
    ),
  };
}
export type ToldApart = Awaited<ReturnType<typeof toldApart>>;

/** A list without the entries that cannot be printed. */
const printable = (list: PrintedList): PrintedList => ({
  ...list,
  entries: list.entries.filter((e) => e.failed === undefined),
});

/** What is put on the clipboard. */
const copies = (list: PrintedList) => {
  const whole = printable(list);
  return { plain: listToText(whole), rich: listToHtml(whole) };
};

export interface ExportFile {
  name: string;
  mediaType: string;
  body: string;
  /** Whether `body` is the file's bytes in base64. */
  binary?: boolean;
  losses: (Loss & { label: string })[];
}

const isFormat = (output: Output): output is FormatName => output in FORMATS;

/** A printed list as a document. */
async function documentOf(
  list: PrintedList,
  output: Exclude<Output, FormatName>,
  look: Look,
  title: string,
): Promise<Omit<ExportFile, 'losses'>> {
  const text = (extension: string, mediaType: string, body: string) => ({
    name: `references.${extension}`,
    mediaType,
    body,
  });
  switch (output) {
    case 'docx':
      return {
        name: 'references.docx',
        mediaType: 'application/vnd.openxmlformats-officedocument.wordprocessingml.document',
        body: (await (await import('./docx')).docxDocument(list, title, look.locale)).toString('base64'),
        binary: true,
      };
    case 'html':
      return text('html', 'text/html; charset=utf-8', htmlDocument(list, title, look.locale));
    case 'rtf':
      return text('rtf', 'application/rtf', rtfDocument(list, title));
    case 'markdown':
      return text('md', 'text/markdown; charset=utf-8', markdownDocument(list, title));
    case 'latex':
      return text('tex', 'application/x-tex; charset=utf-8', latexDocument(list, title));
    case 'text':
      return text('txt', 'text/plain; charset=utf-8', listToText(list, { wrap: true }));
  }
}

/** A scope as a file: a printed list in a style, or records in a format. */
export async function exportFile(
  ctx: Context,
  scope: Scope,
  look: Look,
  output: Output,
  setting: Setting = {},
): Promise<ExportFile> {
  const sources = await sourcesIn(ctx, scope);
  if (!isFormat(output)) {
    const list = await printList(ctx, sources, look, nameOf(scope));
    if (!list.hasList)
      throw new Refusal(
        422,
        `${await styleName(ctx, look.style)} has no reference list. Choose another style.`,
      );
    const made = await set(ctx, list, sources, scope, look, setting);
    const byId = new Map(sources.map((s) => [s.id, s]));
    const losses = made.entries
      .filter((e) => e.failed !== undefined && byId.has(e.id))
      .map(({ id }) => {
        const { citekey, record } = byId.get(id)!;
        return {
          key: citekey,
          label: shortLabel(record),
          field: 'type',
          reason: 'it cannot be printed in this style; look at its dates and names',
        };
      });
    return { ...(await documentOf(printable(made), output, look, setting.heading || HEADING)), losses };
  }
  const { text, losses } = await write(
    output,
    sources.map((s) => ({ key: s.citekey, record: s.record })),
  );
  const labels = new Map(sources.map((s) => [s.citekey, shortLabel(s.record)]));
  return {
    name: output === 'biblatex' ? 'references-biblatex.bib' : `references.${FORMATS[output].extension}`,
    mediaType: `${FORMATS[output].mediaType}; charset=utf-8`,
    body: text,
    losses: losses.map((l) => ({ ...l, label: labels.get(l.key) ?? l.key })),
  };
}
