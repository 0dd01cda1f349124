/**
 * Time grows in proportion to the text: every function of the core that takes text is given texts that are made to be slow,
 * each size ten times the one before. What is compared is the processor's time, as a ratio, so that a busy machine changes nothing.
 */
import * as bag from '../../src/lib/core/bag';
import * as capture from '../../src/lib/core/capture';
import * as citing from '../../src/lib/core/citing';
import * as csl from '../../src/lib/core/csl';
import * as figures from '../../src/lib/core/figures';
import * as formats from '../../src/lib/core/formats';
import * as leads from '../../src/lib/core/leads';
import * as passages from '../../src/lib/core/passages';
import * as passagesOut from '../../src/lib/core/passages-out';
import * as proofing from '../../src/lib/core/proof';
import * as outline from '../../src/lib/core/outline';
import * as outlineOut from '../../src/lib/core/outline-out';
import * as query from '../../src/lib/core/query';
import * as source from '../../src/lib/core/source';
import * as duplicates from '../../src/lib/core/duplicates';
import * as drafting from '../../src/lib/core/drafting';
import * as manuscripts from '../../src/lib/core/manuscripts';
import * as draftingOut from '../../src/lib/core/drafting-out';
import * as documents from '../../src/lib/core/documents';
import * as catalogues from '../../src/lib/core/catalogues';
import * as tables from '../../src/lib/core/tables';
import * as choosing from '../../src/lib/core/choosing';
import * as notes from '../../src/lib/core/notes';
import * as members from '../../src/lib/core/members';
import * as text from '../../src/lib/core/text';
import { textsOf } from './texts';

type Take = (given: string) => unknown;
/** What refuses a text has read it too. */
function tried(work: () => unknown): unknown {
  try {
    return work();
  } catch (error) {
    return error;
  }
}
const run = (t: string) => [{ text: t }];
const list = (t: string) =>
  ({
    entries: [{ id: 'a', runs: run(t), label: t, heading: t, annotations: [{ kind: 'gist', text: t }] }],
    hangingIndent: true,
  }) as unknown as Parameters<typeof citing.listToText>[0];
/** A record as it can be kept, its texts as long as the schema lets them be. */
const record = (t: string) => {
  const short = t.slice(0, 8_000);
  const line = t.slice(0, 4_000);
  return source.sourceRecord.parse({
    type: 'article-journal', title: short, 'container-title': short, publisher: short, URL: short, DOI: short, ISBN: short, ISSN: short, page: line, volume: line, issue: line, edition: line, language: short, note: t.slice(0, 100_000),
    author: [{ family: line || 'x', given: line }, { literal: line || 'x' }], issued: { literal: line || 'x' },
  }); // prettier-ignore
};
const selectors = (t: string) => ({
  quote: { exact: t.slice(0, 200) || 'x', prefix: t.slice(0, 32), suffix: t.slice(0, 32) },
  position: { start: 5, end: 205 },
});
/** A passage of a text, as it is kept, as it is written out, and as what goes out is made of it. */
const kept = (t: string) => ({ id: 'a', kind: 'quotation' as const, tint: 'claim' as const, exact: t, wording: t, selectors: null, gist: t, ownWords: t, locator: null, tags: [t], added: '', figure: null, further: [] }); // prettier-ignore
const passageOut = (t: string): passagesOut.PassageOut => ({ kind: 'quotation', source: t, citekey: t, quotation: t, exact: t, gist: t, ownWords: t, locator: null, citation: run(t), tint: 'claim', tags: [t], sections: [t], state: 'found', added: '', address: t, figure: null }); // prettier-ignore
const outlined = (t: string): outlineOut.OutlineOut => ({ title: t, lang: 'en', references: undefined, lines: [{ kind: 'section', depth: 0, name: t }, { kind: 'sentence', depth: 0, words: t }, { kind: 'source', depth: 0, title: t, citation: run(t) }, { kind: 'passage', depth: 0, passage: passageOut(t) }] }); // prettier-ignore
/** A draft of a text: in paragraphs, quoted, in a footnote, a list, a table and a formula, cited with places and words. */
const drafted = (t: string): drafting.DraftPart[] => {
  const said = t.slice(0, 100_000) || 'x';
  const cite: drafting.Inline = {
    type: 'cite',
    attrs: { id: 'c', works: [{ id: 'a', locator: said, prefix: said, suffix: said }], named: false },
  };
  const line: drafting.Inline[] = [
    { type: 'text', text: said, marks: [{ type: 'passage', attrs: { id: 'q', as: 'quotation' } }] },
    cite,
    { type: 'footnote', attrs: { id: 'f', content: [{ type: 'text', text: said }] } },
    { type: 'formula', attrs: { tex: said } },
  ];
  const paragraph: drafting.Block = { type: 'paragraph', content: line };
  const blocks: drafting.Block[] = [
    { type: 'blockquote', attrs: { passage: 'q' }, content: [paragraph] },
    { type: 'heading', attrs: { level: 2 }, content: line },
    paragraph,
    { type: 'bulletList', content: [{ type: 'listItem', content: [paragraph] }] },
    {
      type: 'table',
      attrs: { caption: line },
      content: [{ type: 'tableRow', content: [{ type: 'tableCell', content: [paragraph] }] }],
    },
    { type: 'codeBlock', content: [{ type: 'text', text: said }] },
    { type: 'formulaBlock', attrs: { tex: said } },
  ];
  return blocks.map((content, i) => ({ id: `p${i}`, content }));
};
const draftedOf = (t: string): drafting.Material => ({
  id: 'q',
  sourceId: 'a',
  kind: 'quotation',
  exact: t,
  wording: null,
  gist: t,
  ownWords: t,
  locator: null,
  figure: null,
});
const draftGoing = (t: string): draftingOut.DraftOut => ({
  title: t,
  lang: 'en',
  parts: drafted(t),
  names: new Map([['p4', t]]),
  printed: new Map([['c', { id: 'c', runs: run(t) }]]),
  notes: new Map([['f', 1]]),
  keys: new Map([['a', t]]),
  list: list(t) as never,
  pictures: new Map(),
});
const going = (t: string) => ({ title: t, lang: 'en', passages: [passageOut(t)], references: undefined });
const written =
  (format: formats.FormatName): Take =>
  (t) =>
    formats.writeFormat(format, [{ key: 'a', record: record(t) }]);
const read =
  (format: Exclude<formats.ReadableName, 'mods' | 'marcxml'>): Take =>
  (t) =>
    formats.readFormat(format, t);

/** How each function that takes text is given it. A function of a record is given a record of it. */
/** A style that prints what there is of a work, in quotation marks, in title case and as numbers, sorts by it and tells works apart. */
const el = (name: string, attrs: Record<string, string> = {}, ...children: csl.Tree[]): csl.Tree => ({
  name,
  attrs,
  children,
});
const everything = [
  el('names', { variable: 'author' }, el('name', { 'initialize-with': '. ', 'name-as-sort-order': 'all' })),
  ...['title', 'container-title', 'URL', 'publisher', 'page', 'volume', 'edition'].map((variable) => el('text', { variable, quotes: 'true', 'text-case': 'title', suffix: '. ' })),
  el('number', { variable: 'issue', form: 'ordinal' }), el('label', { variable: 'page' }), el('date', { variable: 'issued' }, el('date-part', { name: 'year' })), el('text', { variable: 'locator' }),
]; // prettier-ignore
const STYLE = csl.compileStyle(
  el(
    'style',
    { class: 'in-text', 'page-range-format': 'chicago' },
    el('macro', { name: 'all' }, ...everything),
    el('citation', { 'disambiguate-add-givenname': 'true', 'disambiguate-add-year-suffix': 'true', collapse: 'year' }, el('layout', { delimiter: '; ' }, ...everything)),
    el('bibliography', {}, el('sort', {}, el('key', { macro: 'all' })), el('layout', {}, ...everything)),
  ),
  'en-US',
  [],
); // prettier-ignore
function registryOf(t: string): csl.Registry {
  const registry = csl.openRegistry(STYLE);
  const item = { ...record(t), issued: { raw: t } };
  csl.setItems(registry, [
    { ...item, id: 'a' },
    { ...item, id: 'b' },
  ] as unknown as csl.Item[]);
  return registry;
}

/** Two works of a few words. */
const SHORT = registryOf('Tide');

/** As many sections as a text is long, far more than an outline has at most; each seventh with six under it. */
const headings = (t: string) =>
  Array.from(t.slice(0, 50_000), (_, i) => ({ id: String(i), parentId: i % 7 ? String(i - (i % 7)) : null }));

const NOTHING_PRINTED: citing.PrintedText = { set: () => ({ citations: [], list: { entries: [], hangingIndent: false, hasList: false }, changed: [] }) }; // prettier-ignore

export const TAKES: Record<string, Record<string, Take>> = {
  text: {
    codePointLength: text.codePointLength, decodeEntities: text.decodeEntities, escapeHtml: text.escapeHtml, excerpt: (t) => text.excerpt(t, 'tide mill'), fold: text.fold, foldWords: text.foldWords, hasControls: text.hasControls, isShouting: text.isShouting,
    nfc: text.nfc, plain: text.plain, sentenceCase: text.sentenceCase, titleCase: text.titleCase, isTitleCased: text.isTitleCased, languageOfTitle: text.languageOfTitle, similarity: (t) => text.similarity(t, `b${t}`), sliceCodePoints: (t) => text.sliceCodePoints(t, 3, 90), squash: text.squash,
    marked: (t) => text.marked({ text: t, from: 0, to: t.length }, 'italic'), toCodePoint: (t) => text.toCodePoint(t, t.length), toCodeUnit: (t) => text.toCodeUnit(t, t.length), withoutControls: text.withoutControls, withoutTrailing: (t) => text.withoutTrailing(t, '.,; '), inOneLine: text.inOneLine, spokenText: text.spokenText, joinedLines: (t) => text.joinedLines(t.match(/.{1,40}/gsu) ?? []), 
  },
  source: {
    facetsOfRecord: (t) => source.facetsOfRecord({ ...record(t), language: t }), changeProblem: (t) => source.changeProblem({ act: 'set', field: 'issued', value: t }), fieldChanged: (t) => source.fieldChanged(record(t), { act: 'replace', field: 'title', find: t.slice(0, 3), by: t.slice(0, 9), exact: false }), canReplace: source.canReplace, canSet: source.canSet,
    addressKey: source.addressKey, arxivDoi: source.arxivDoi, bareDoi: source.bareDoi, citekeyStem: (t) => source.citekeyStem(record(t), source.USUAL_CITEKEY), cslTypeOf: source.cslTypeOf, dateText: (t) => source.dateText({ literal: t }), derive: (t) => source.derive(record(t)), doiKey: source.doiKey, edtfOf: (t) => source.edtfOf({ literal: t }),
    fieldLabel: (t) => source.fieldLabel(t as 'title'), fieldName: (t) => source.fieldName(t), findArxiv: source.findArxiv, findDoi: source.findDoi, findHandle: source.findHandle, findIsbn: source.findIsbn, findIssn: source.findIssn, findPmid: source.findPmid, headline: (t) => source.headline(record(t)),
    isIsbn10: source.isIsbn10, isIsbn13: source.isIsbn13, isIssn: source.isIssn, isOrcid: source.isOrcid, orcidText: source.orcidText, isOpenRange: (t) => source.isOpenRange({ literal: t }), isbnKey: source.isbnKey, isbnKeys: source.isbnKeys, issnText: source.issnText, looksInstitutional: source.looksInstitutional, makeCitekey: (t) => source.makeCitekey(record(t), () => false), nameFromCsl: (t) => source.nameFromCsl({ family: t, given: t }), nameText: (t) => source.nameText({ family: t, given: t }),
    nthCitekey: (t) => source.nthCitekey(t, 3), parseDate: source.parseDate, parseEdtf: source.parseEdtf, parseName: source.parseName, parseNames: source.parseNames, recognise: source.recognise, recogniseLines: source.recogniseLines, samePerson: (t) => source.samePerson({ family: t, given: t }, { family: `${t}b`, given: t }),
    languageOf: source.languageOf, shortLabel: (t) => source.shortLabel(record(t)), shortName: (t) => source.shortName({ family: t, given: t }), itemOf: (t) => source.itemOf('a', record(t)), tidied: source.tidied, tidiedRecord: (t) => source.tidiedRecord(record(t)), toCsl: (t) => source.toCsl('a', record(t)), typedDate: (t) => source.typedDate(t), dateProblem: source.dateProblem, languageTag: source.languageTag, firstIsbnKey: source.firstIsbnKey, valueText: (t) => source.valueText('title', t), withEdit: (t) => source.withEdit(record(''), { title: t }, 'x'), withoutPassword: source.withoutPassword, takenOutOf: (t) => source.takenOutOf([t]),
    keywordsOf: (t) => source.keywordsOf({ ...record(''), keyword: t }), credibilityText: (t) => source.credibilityText({ behind: t, why: t }), joinedCredibility: (t) => source.joinedCredibility([{ why: t }, { why: `${t}b` }]), keywordsNotTaken: (t) => source.keywordsNotTaken({ ...record(''), keyword: t }), datesAgree: (t) => source.datesAgree({ literal: t }, { literal: t }), yearOf: (t) => source.yearOf({ literal: t }), precisionOf: (t) => source.precisionOf({ literal: t }), sameValue: (t) => source.sameValue(t, `${t}b`),
  },
  bag: { manifest: (t) => bag.manifest(new Map([[t, t]])), readManifest: (t) => tried(() => bag.readManifest(t)), leadsOut: (t) => bag.leadsOut(t), bagInfo: (t) => bag.bagInfo({ a: t }), infoOf: (t) => bag.infoOf(t, 'a'), problemsOfBag: (t) => bag.problemsOfBag(t, new Map([[t, t]]), new Map([[t, '']])) },
  members: { mentionedIn: (t) => members.mentionedIn(t, [{ id: 'a', name: t.slice(0, 200) }, { id: 'b', name: 'Ada Pell' }]) },
  tables: { toCsv: (t) => tables.toCsv({ heads: ['a'], rows: [[t], [t]] }), odsFiles: (t) => tables.odsFiles({ heads: ['a'], rows: [[t], [t]] }, 'a') },
  outline: {
    inOrder: (t) => outline.inOrder(headings(t)), within: (t) => outline.within(headings(t), '0'), under: (t) => outline.under(headings(t), '0'), spotOf: (t) => outline.spotOf(headings(t), '8'), moved: (t) => outline.moved(headings(t), '7', { parentId: '14', before: null }),
    stepped: (t) => outline.stepped(headings(t), '9', 'up'), changed: (t) => outline.changed(headings(t).map(({ id, parentId }) => ({ sectionId: parentId ?? 'top', ref: id, kind: 'source' })), [{ act: 'move', items: [{ sectionId: 'top', ref: '0' }], sectionId: '0', before: null }]), standings: (t) => outline.standings(headings(t), headings(t).map(({ id, parentId }) => ({ sectionId: parentId ?? '0', ref: id, kind: 'sentence' }))),
    readMarkdownOutline: outline.readMarkdownOutline, readNestedOutline: (t) => outline.readNestedOutline([{ text: t, under: [{ text: t, under: [] }] }]), splitWords: (t) => outline.splitWords({ sectionId: 'a', ref: 'b', kind: 'sentence', words: t }, t.length >> 1, 'c', null), joinedWords: (t) => outline.joinedWords({ sectionId: 'a', ref: 'b', kind: 'sentence', words: t }, { sectionId: 'a', ref: 'c', kind: 'sentence', words: t }), putBefore: (t) => outline.putBefore([...t], [...t.slice(0, 50)], t.at(-1)!),
  },
  notes: { asContent: (t) => notes.asContent(notes.contentOf(t)), contentOf: notes.contentOf, namedIn: (t) => notes.namedIn(noted(t)), noteContent: (t) => notes.noteContent.safeParse(noted(t)), plainOf: (t) => notes.plainOf(noted(t)), renamed: (t) => notes.renamed(noted(t), () => undefined) },
  leads: { looksLikeReference: leads.looksLikeReference, nearness: (t) => leads.nearness(record(t), t, record(t)), parseReference: leads.parseReference, splitReferences: leads.splitReferences, referenceListIn: (t) => [leads.referenceListIn(`Words.\nReferences\n${t}`), leads.referenceListIn(t)], wordsToSearch: (t) => leads.wordsToSearch({ record: record(t) }, t) },
  formats: {
    sniff: formats.sniff, texToText: (t) => formats.texToText(t), readBibtex: read('bibtex'), readBiblatex: read('biblatex'), readRis: read('ris'), readCslJson: read('csl-json'), readMedline: read('medline'), readCoins: read('coins'), asFromFile: (t) => formats.asFromFile(record(t)),
    writeBibtex: written('bibtex'), writeBiblatex: written('biblatex'), writeRis: written('ris'), writeCslJson: written('csl-json'),
  },
  csl: {
    richText: csl.richText, dialectOf: csl.dialectOf, listNodes: (t) => csl.listNodes(registryOf(t)).map((e) => csl.textOfLeaves(csl.leavesOf(e.nodes, STYLE.locale))), // Both works are printed as citations, and as entries, by listNodes; here it is what a cite brings with it.
    citationNodes: (t) => csl.leavesOf(csl.citationNodes(SHORT, [{ id: 'a', locator: t, prefix: t, suffix: t }, { id: 'b' }]), STYLE.locale), sortedCites: (t) => csl.sortedCites(SHORT, [{ id: 'b', locator: t }, { id: 'a', prefix: t }]),
    setDocument: (t) => csl.setDocument(csl.openDocument(STYLE), Array.from(t.slice(0, 500), (letter, i) => ({ id: String(i), note: i, cites: [{ id: i % 2 ? 'a' : 'b', locator: letter }] })), [...SHORT.entries.values()].map((e) => e.item)),
  },
  citing: {
    citedKeys: citing.citedKeys, elementLines: citing.elementLines, runsToHtml: (t) => citing.runsToHtml(run(t), { links: true }), runsToLatex: (t) => citing.runsToLatex(run(t)), runsToMarkdown: (t) => citing.runsToMarkdown(run(t)), runsToRtf: (t) => citing.runsToRtf(run(t)), runsToText: (t) => citing.runsToText(run(t)), writable: (t) => citing.writable(run(t)),
    listToText: (t) => citing.listToText(list(t), { wrap: true }), listToHtml: (t) => citing.listToHtml(list(t)), htmlDocument: (t) => citing.htmlDocument(list(t), t, 'en'), rtfDocument: (t) => citing.rtfDocument(list(t), t), markdownDocument: (t) => citing.markdownDocument(list(t), t), latexDocument: (t) => citing.latexDocument(list(t), t), localeLabel: (t) => citing.localeLabel(t), styleLabel: (t) => citing.styleLabel(t), missingFor: (t) => citing.missingFor(['title'], record(t)),
  },
  capture: { pageRange: (t) => capture.pageRange(t, t), parseLinkHeader: (t) => capture.parseLinkHeader(t, 'https://a.example/'), peopleOf: (t) => capture.peopleOf([t]), personName: (t) => capture.personName(t), fromContextObject: (t) => capture.fromContextObject(t), fromCslJson: (t) => capture.fromCslJson({ type: 'book', title: t, author: [{ family: t }], page: t, DOI: t, issued: { raw: t }, abstract: t }, 'registry'),
    collector: (t) => { const c = capture.collector('html'); c.text('title', t); c.text('publisher', t); c.text('page', t); c.text('edition', t); c.names('author', [t]); c.date('issued', t); return capture.reconcile(c.found, undefined, 'x'); },
    reconcile: (t) => capture.reconcile([{ field: 'title', value: t, kind: 'html' }, { field: 'title', value: `${t}b`, kind: 'json-ld' }, { field: 'container-title', value: t, kind: 'html' }] as capture.Candidate[], 'https://a.example/', 'x'),
    sameWork: (t) => capture.sameWork([{ field: 'title', value: t, kind: 'html' }] as capture.Candidate[], [{ field: 'title', value: `${t}b`, kind: 'html' }] as capture.Candidate[]),
    fromRecord: (t) => capture.fromRecord(record(t), 'html', t), recordOf: (t) => capture.recordOf([{ field: 'title', value: t, kind: 'html' }] as capture.Candidate[], 'https://a.example/', 'x'),
    joinRegistry: (t) => capture.joinRegistry([{ field: 'title', value: t, kind: 'html' }] as capture.Candidate[], [{ field: 'title', value: `${t}b`, kind: 'html' }] as capture.Candidate[], 'DOI'),
  },
  passages: {
    anchor: (t) => passages.anchor(t, selectors(t)), anchorAll: (t) => passages.anchorAll(t, [selectors(t), selectors(t)]), anchorer: (t) => passages.anchorer(t)({ quote: { exact: `${t.slice(0, 400)} changed`, prefix: t.slice(400, 440), suffix: t.slice(440, 480) } }), anchorElsewhere: (t) => passages.anchor(t, selectors(`${t.slice(0, 50)}not there`)), describe: (t) => passages.describe(t, 0, t.length), finder: (t) => passages.finder(t)(t.slice(0, 200)), leavesIn: (t) => passages.leavesIn(`<section class="leaf" data-leaf="1"><p>${t}</p></section>`), inOwnWords: (t) => passages.inOwnWords(t as 'mark'), findWords: (t) => passages.findWords(t, `${t.slice(0, 2_000)} not there`), locatorIn: (t) => passages.locatorIn(`<p>${t}</p>`, 'x'), secondsOf: passages.secondsOf, stintOfFragment: passages.stintOfFragment, stintOf: (t) => passages.stintOf({ label: 'timestamp', value: t }), locatorText: (t) => passages.locatorText({ label: 'page', value: t }), overlap: (t) => passages.overlap(t.slice(0, 2_000), t), quotedStretches: passages.quotedStretches, quotingChanges: (t) => passages.quotingChanges(t, `${t.slice(0, 900)}[…]${t.slice(950)}`), severalPlaces: (t) => passages.severalPlaces(t), sameWords: (t) => passages.sameWords(t, `${t} b`),
  },
  query: {
    parseQuery: query.parseQuery, printQuery: (t) => query.printQuery({ terms: [{ kind: 'words', words: t, phrase: true, not: false }, { kind: 'field', field: 'tag', values: [t], not: true }] }), problemsIn: (t) => query.problemsIn(query.parseQuery(t)), wordsSought: (t) => query.wordsSought(query.parseQuery(t)),
    asking: (t) => query.asking(['tag', [t]]), toggled: (t) => query.toggled(query.parseQuery(t), 'tag', t), valuesOf: (t) => query.valuesOf(query.parseQuery(`tag:${t}`), 'tag'), withField: (t) => query.withField(query.parseQuery(t), 'tag', [t]), asksAnything: (t) => query.asksAnything(query.parseQuery(t)), yearsIn: query.yearsIn, addedIn: query.addedIn, typesNamed: query.typesNamed, searchForm: query.searchForm, partsSought: query.partsSought, filtersAsQuery: (t) => query.filtersAsQuery({ q: t, tag: t }), nearestWord: (t) => query.nearestWord(t, [`${t}x`]),
  },
  proof: {
    proof: (t) => proofing.proof(record(t)), proofAll: (t) => proofing.proofAll(record(t)), mended: (t) => proofing.mended(record(t)), proofAround: (t) => proofing.proofAround(record(t), { titleAsItStands: true }),
    letStand: (t) => proofing.letStand(record(t), { check: t, pencil: 'red', field: 'title', message: t }), withSic: (t) => proofing.withSic(record(t), t, { check: t, pencil: 'red', field: 'title', message: t }), checkedOf: proofing.checkedOf, isAround: proofing.isAround,
  },
  duplicates: { spellingsOf: (t) => duplicates.spellingsOf(record(t)), proposeSpellings: (t) => duplicates.proposeSpellings('container x', [t, `${t}b`]), respelled: (t) => duplicates.respelled(record(t), 'container', new Set([t.slice(0, 8_000)]), `${t}b`), textOfForm: (t) => duplicates.textOfForm('person', JSON.stringify([['family', t]])), formOfName: (t) => duplicates.formOfName({ family: t, given: t }), nameOfForm: (t) => duplicates.nameOfForm(JSON.stringify([['literal', t]])), pairOfForms: (t) => duplicates.pairOfForms(t, `${t}b`), compare: (t) => duplicates.compare(record(t), record(`${t}b`)), signatureOf: (t) => duplicates.signatureOf(record(t)), blocksOf: (t) => duplicates.blocksOf(duplicates.signatureOf(record(t))), holdings: (t) => duplicates.holdings(duplicates.signatureOf({ ...record(t), type: 'chapter', 'container-title': t })), judgePair: (t) => duplicates.judgePair(duplicates.signatureOf(record(t)), duplicates.signatureOf(record(`${t}b`))), hash32: (t) => duplicates.hash32(t), mergeAll: (t) => duplicates.mergeAll([record(t), record(`${t}b`)], {}, 'x'), proposals: (t) => duplicates.proposals([record(t), record(`${t}b`)]), typedValue: (t) => { duplicates.typedValue('author', t); return duplicates.typedValue('issued', t); }, withoutMerge: (t) => duplicates.withoutMerge(record(t), record(`${t}b`), record(`${t}c`)), findGroups: (t) => duplicates.findGroups(['a', 'b'], [duplicates.signatureOf(record(t)), duplicates.signatureOf(record(`${t}b`))]), findPairs: (t) => duplicates.findPairs(['a', 'b'], [duplicates.signatureOf(record(t)), duplicates.signatureOf(record(`${t}b`))]), commonnessOf: (t) => duplicates.commonnessOf([duplicates.signatureOf(record(t))]), suggest: (t) => duplicates.suggest(record(t), record(`${t}b`)), agreeing: (t) => duplicates.agreeing(record(t), record(t)), mergeEffect: (t) => duplicates.mergeEffect(record(t), record(t)), mergeRecords: (t) => duplicates.mergeRecords(record(t), record(`${t}b`), {}, 'x') },
  figures: {
    picturesIn: (t) => { figures.picturesIn(t); figures.picturesIn(`<figure><figcaption>${t}`); },
    boxOfSvg: (t) => { figures.boxOfSvg(t); figures.boxOfSvg(`<svg viewBox="0 0 9 9"><path d="${t}"/><polygon points="${t}"/></svg>`); }, boxOfFragment: (t) => { figures.boxOfFragment(t); figures.boxOfFragment(`#xywh=${t}`); }, isCaption: figures.isCaption, readCaption: (t) => { figures.readCaption(t); figures.readCaption(`Figure 3 ${t}`); },
    captionNear: (t) => figures.captionNear([{ text: `Figure 3. ${t}`, x: 10, y: 60, width: 80, size: 9 }, { text: t, x: 10, y: 70, width: 80, size: 9 }], { x: 0, y: 0, width: 1, height: 0.5 }, { width: 100, height: 100 }), drawingSvg: (t) => figures.drawingSvg([{ id: 'a', tint: 'claim', shape: 'words', at: [0, 0], text: t }], { width: 9, height: 9 }), drawingInWords: (t) => figures.drawingInWords([{ id: 'a', tint: 'claim', shape: 'words', at: [0, 0], text: t }]),
  },
  passagesOut: {
    altOf: (t) => passagesOut.altOf({ ...passageOut(t), figure: { number: t, alt: t, drawing: [], png: '', width: 1, height: 1 } }),
    readAnnotations: (t) => passagesOut.readAnnotations(JSON.stringify([{ type: 'Annotation', bodyValue: t, target: { source: t, selector: { type: 'TextQuoteSelector', exact: t, prefix: t, suffix: t } } }])), annotationPage: (t) => passagesOut.annotationPage([kept(t)], { address: t, title: t, mediaType: t, creator: t }), annotationOf: (t) => passagesOut.annotationOf(kept(t), { address: t, title: t, mediaType: t, creator: t }),
    partsOfPassage: (t) => passagesOut.partsOfPassage(passageOut(t)), citesOwn: (t) => passagesOut.citesOwn(passageOut(t)), bySource: (t) => passagesOut.bySource([passageOut(t), passageOut(`${t}b`)]), passagesToText: (t) => passagesOut.passagesToText(going(t)), passagesToMarkdown: (t) => passagesOut.passagesToMarkdown(going(t), 'beside'), passagesToHtml: (t) => passagesOut.passagesToHtml(going(t), 'below'), passagesDocument: (t) => passagesOut.passagesDocument(going(t), 'beside'), passagesToCsv: (t) => passagesOut.passagesToCsv([passageOut(t)]),
  },
  drafting: {
    citationsOfMarkdown: drafting.citationsOfMarkdown, parseLocated: drafting.parseLocated, printMarkdown: (t) => drafting.printMarkdown(t, NOTHING_PRINTED, new Map(), { notes: true }),
    citeItem: (t) => drafting.citeItem({ id: t, locator: t, prefix: t, suffix: t }), typedPlace: drafting.typedPlace, typedWork: drafting.typedWork, countWords: drafting.countWords, readPart: (t) => drafting.readPart(drafted(t)[0]!), textOfBlock: (t) => drafting.textOfBlock(drafted(t)[0]!.content), textOfInlines: (t) => drafting.textOfInlines([{ type: 'text', text: t }]),
    placed: (t) => drafting.placed(draftedOf(t), { quotes: ['“', '”'], words: 40, newId: () => 'a' }), quotesTruly: (t) => drafting.quotesTruly(t, { exact: t, wording: null }), checkDraft: (t) => drafting.checkDraft(drafted(t), { works: new Map(), at: {}, passages: new Map([['q', { sourceId: 'a', exact: t, wording: t, placed: true }]]), related: [], listed: [], blockWords: 40 }), blockWords: drafting.blockWords,
    citationsOf: (t) => drafting.citationsOf(drafted(t).map(drafting.readPart), { notes: true }), sectionsOf: (t) => drafting.sectionsOf(drafted(t).map(drafting.readPart)), namesOf: (t) => drafting.namesOf(drafted(t).map(drafting.readPart), t), worksCited: (t) => drafting.worksCited(drafted(t).map(drafting.readPart)), ownTexts: (t) => drafting.ownTexts(drafted(t)), indexOwn: (t) => drafting.indexOwn([{ part: 'a', text: t, works: [] }]), borrowedFrom: (t) => { const own = drafting.indexOwn([{ part: 'a', text: t, works: [] }]); return drafting.borrowings(own, [{ document: 'a', runs: drafting.borrowedFrom(own, `${t} b`) }, { document: 'b', runs: drafting.borrowedFrom(own, t.slice(9)) }]); }, mergedOrder: (t) => drafting.mergedOrder([...t.slice(0, 20_000)], [...t.slice(0, 20_000)].reverse(), new Set(['a'])),
  },
  manuscripts: {
    isDocxPart: manuscripts.isDocxPart, isTemplatePart: manuscripts.isTemplatePart, inTemplate: (t) => manuscripts.inTemplate({ 'word/styles.xml': `<w:styles>${t}</w:styles>`, 'word/document.xml': `<w:document><w:body>${t}<w:sectPr/></w:body></w:document>` }, { 'word/styles.xml': `<w:styles><w:style w:styleId="a"><w:name w:val="b"/></w:style>${t}</w:styles>`, 'word/document.xml': t }), isOdtPart: manuscripts.isOdtPart, printTex: (t) => manuscripts.printTex(t, NOTHING_PRINTED, new Map(), { notes: true }),
    printDocx: (t) => manuscripts.printDocx({ 'word/document.xml': `<w:document xmlns:w="http://schemas.openxmlformats.org/wordprocessingml/2006/main"><w:body><w:p><w:r><w:t>${text.escapeHtml(t)}</w:t></w:r></w:p><w:p><w:r>${t}</w:r></w:p></w:body></w:document>` }, NOTHING_PRINTED, new Map(), { notes: true }),
    printOdt: (t) => manuscripts.printOdt({ 'content.xml': `<office:document-content><office:body><office:text><text:p>${text.escapeHtml(t)}</text:p>${t}</office:text></office:body></office:document-content>` }, NOTHING_PRINTED, new Map(), { notes: true }),
  },
  draftingOut: {
    ommlOf: (t) => { draftingOut.ommlOf(t); draftingOut.ommlOf(`<math>${t}</math>`); draftingOut.ommlOf(`<math><mtext>${text.escapeHtml(t)}</mtext>${'<mo fence="true" form="prefix">(</mo>'.repeat(t.length / 40)}</math>`); },
    laidOut: (t) => draftingOut.laidOut(draftGoing(t)), draftDocument: (t) => draftingOut.draftDocument(draftGoing(t)), spelledOut: (t) => draftingOut.spelledOut(draftGoing(t)), draftOdt: (t) => [draftingOut.draftOdt(draftGoing(t), 'keys'), draftingOut.draftOdt(draftGoing(t), 'printed')], draftToMarkdown: (t) => [draftingOut.draftToMarkdown(draftGoing(t), 'keys'), draftingOut.draftToMarkdown(draftGoing(t), 'printed')], draftToLatex: (t) => [draftingOut.draftToLatex(draftGoing(t), 'keys'), draftingOut.draftToLatex(draftGoing(t), 'printed')], notesIn: (t) => draftingOut.notesIn(draftingOut.laidOut(draftGoing(t))),
  },
  outlineOut: {
    outlineToMarkdown: (t) => outlineOut.outlineToMarkdown(outlined(t), { quotations: true }), outlineDocument: (t) => outlineOut.outlineDocument(outlined(t), { quotations: true }), outlineToOpml: (t) => outlineOut.outlineToOpml(outlined(t), { quotations: true }), paragraphsOfPassage: (t) => outlineOut.paragraphsOfPassage(passageOut(t), { quotations: false }),
  },
  documents: {
    leaves: (t) => { const leaves = [{ width: 595, height: 842, runs: t.slice(0, 20_000).match(/.{1,40}/gsu)?.map((part, i) => ({ text: part, x: 72, y: 20 + (i % 60) * 13, width: 300, size: 11 })) ?? [] }]; const labels = documents.printedLabels(leaves, null); documents.readingHtml(leaves, labels); return documents.fromLeaves(leaves, labels, { info: { Title: t, Author: t }, xmp: { 'dc:title': t } }); },
  },
}; // prettier-ignore

/** Functions of the core that take no text of their own: trees, documents, ids, numbers, what is tested by others above. */
export const NO_TEXT = new Set([
  'oxum', 'may', 'lesser', 'agreement', 'judgedBy', 'openTo', 'orderPoints', 'outcomes', 'says', 'strengthOf', 'borrowings', 'entryRuns', 'numbered', 'setManuscript', 'UnreadableManuscript', 'groupsOf', 'weightOfKey', 'blocksIn', 'captionIn', 'inlinesIn', 'workOf',   'candidatesOf', 'linksOf', 'readDocument', 'catalogueCandidates', 'diagnosticOf', 'recordsIn', 'annotated', 'asksFor', 'titleAsItStands', 'inOrder', 'thinness', 'keyOf', 'isOwn', 'OutlineError', 'createPrinter', 'grouped', 'kindOf', 'listTerms', 'nodesNamed', 'runsOfLeaves', 'compileStyle', 'openRegistry', 'openDocument', 'authorNodes', 'entryNodes', 'setItems', 'placesOf', 'leavesOf', 'textOfLeaves', 'openLocale', 'piece', 'entangledIn', 'openTree', 'placeIn', 'styleFacts', 'styleLanguage', 'optionsInForce', 'remarksOn', 'tagOf', 'traceOf', 'printTraced', 'tells', 'tellingsOf', 'translationIn', 'translationsOf', 'translationsText', 'withTranslations',
  'bodySize', 'fromLeaves', 'joined', 'linesOf', 'languagesInWords', 'wordsOf', 'worstOf', 'timeText', 'locatorOfStint', 'fragmentOfStint', 'arrowHead', 'boxToSvg', 'paragraphsOf', 'printedLabels', 'readingHtml', 'readFormat', 'writeFormat', 'offsetOf', 'piecesOf', 'textOf', 'alternativesOf', 'askedFields', 'askedInOrder', 'creatorsOf', 'emptyRecord', 'reviewedWords', 'trustWords', 'groupOf', 'isDateVariable', 'isNameVariable', 'isTextVariable', 'originOf', 'otherFields', 'othersUnnamed', 'plainlyRecord', 'problemsOf', 'shownFields', 'firstFields', 'locatorName',
]); // prettier-ignore

/** Sizes at which every text is tried, and those at which the slowest of them go on, in characters. */
const SMALL = [25, 250, 2_500];
const LARGE = [30_000, 200_000];
const SLOWEST = 2;
/** How many times more than in proportion a longer text may take, and what is too short to tell, in milliseconds. */
const MOST_RATIO = 4;
const TOO_SHORT = 80;

function cpu(work: () => unknown): number {
  const before = process.cpuUsage();
  try {
    work();
  } catch {
    // What cannot be read may be refused; only the time counts here.
  }
  const { user, system } = process.cpuUsage(before);
  return (user + system) / 1_000;
}
/** The shortest of a few, since what the machine does besides only adds. */
const shortest = (work: () => unknown) => Math.min(...Array.from({ length: 3 }, () => cpu(work)));

/** How often what seems out of proportion is measured again, both sizes of it one after the other, before it is said. */
const AGAIN = 3;

/** What a function grows on out of proportion, in words; nothing when it grows on no text. */
export function grows(take: Take): string | undefined {
  const last = new Map<string, number>();
  let step = 10;
  const tooLong = (name: string, size: number, given: string): string | undefined => {
    let ms = cpu(() => take(given));
    let before = Math.max(last.get(name) ?? 0, 1, size / 50_000);
    const out = () => ms > TOO_SHORT && ms > MOST_RATIO * step * before;
    for (let times = 0; out() && times < AGAIN; times++) {
      const fewer = textNamed(name, Math.round(size / step));
      before = Math.max(
        before,
        shortest(() => take(fewer)),
      );
      ms = Math.min(
        ms,
        shortest(() => take(given)),
      );
    }
    last.set(name, ms);
    return out()
      ? `${name}: ${size} characters took ${ms.toFixed(0)} ms, fewer by the step before ${before.toFixed(1)} ms`
      : undefined;
  };
  for (const size of SMALL)
    for (const { name, text: given } of textsOf(size)) {
      const said = tooLong(name, size, given);
      if (said) return said;
    }
  const slowest = [...last].sort(([, a], [, b]) => b - a).slice(0, SLOWEST);
  let size = SMALL.at(-1)!;
  for (const next of LARGE) {
    [step, size] = [next / size, next];
    for (const [name] of slowest) {
      const said = tooLong(name, size, textNamed(name, size));
      if (said) return said;
    }
  }
  return undefined;
}

function textNamed(name: string, size: number): string {
  for (const { name: of, text: given } of textsOf(size)) if (of === name) return given;
  throw new Error(`there is no text named ${name}`);
}

/** A note of so many words, in a list and by a name. */
const noted = (t: string): notes.NoteContent => [
  { type: 'bulletList', content: [{ type: 'listItem', content: notes.contentOf(t) }] },
  {
    type: 'paragraph',
    content: [{ type: 'named', attrs: { kind: 'source', id: 'a', label: t.slice(0, 400) } }],
  },
];

/** The rooms that print and write, which are tried in a file of their own. */
export const PRINTING = [
  'csl',
  'citing',
  'passagesOut',
  'outlineOut',
  'drafting',
  'draftingOut',
  'manuscripts',
  'formats',
  'tables',
  'outline',
  'bag',
];

/** The doors of the rooms of the core. */
export const DOORS = { bag, notes, choosing, members, capture, citing, csl, formats, leads, figures, passages, proof: proofing, outline, query, source, tables, text, duplicates, documents, catalogues, drafting, draftingOut, manuscripts, outlineOut, passagesOut }; // prettier-ignore
