import { type CslType, findDoi, findIsbn } from '../../source';
import { collector, pageRange, textOnly, type Candidate } from '../candidate';
import { metaTags } from '../meta';

/** Words of the DCMI Type vocabulary and of repository practice to CSL types. */
const TYPES: [RegExp, CslType][] = [
  [/thesis|dissertation/, 'thesis'],
  [/conference|proceeding/, 'paper-conference'],
  [/book ?part|book ?section|chapter/, 'chapter'],
  [/working ?paper|report/, 'report'],
  [/preprint/, 'article'],
  [/book ?review/, 'review-book'],
  [/newspaper/, 'article-newspaper'],
  [/magazine/, 'article-magazine'],
  [/article|journal/, 'article-journal'],
  [/book|monograph/, 'book'],
  [/dataset/, 'dataset'],
  [/software/, 'software'],
  [/movingimage|film|video/, 'motion_picture'],
  [/\bmap\b|cartographic/, 'map'],
  [/lecture|presentation|speech/, 'speech'],
  [/manuscript|archival/, 'manuscript'],
  [/interview/, 'interview'],
  [/patent/, 'patent'],
  [/stillimage|photograph|\bimage\b/, 'graphic'],
  [/^sound$|soundrecording/, 'song'],
];

/** A bibliographic citation in words, as DCMI recommends it: `Journal of Coasts 44 (2), 112-130. (1998)`. */
const CITATION =
  /^(?<title>[^\d,;]+?)[,;]?\s+(?:vol(?:ume|\.)?\s*)?(?<volume>\d+)\s*(?:\((?<issue>[^)]+)\)|,?\s*(?:no|issue|nr)\.?\s*(?<issue2>[\w-]+))?\s*[,:;]\s*(?:pp?\.?\s*)?(?<page>[\w]+\s*[-–]\s*[\w]+|e?\d+)/iu;

/**
 * Reads Dublin Core in meta tags, both `DC.title` and `dcterms.title` spellings, with `link rel="DCTERMS.…"`.
 * Elements: DCMI Metadata Terms (dublincore.org/specifications/dublin-core/dcmi-terms); `bibliographicCitation` as
 * in "Guidelines for Encoding Bibliographic Citation Information in Dublin Core Metadata".
 */
export function dublinCore(doc: Document): Candidate[] {
  const tags = metaTags(doc);
  const c = collector('dublin-core');
  const all = (...names: string[]) =>
    names.flatMap((n) => {
      const low = n.toLowerCase();
      return [`dcterms.${low}`, `dc.${low}`, `dcterms:${low}`, `dc:${low}`, `dc.terms.${low}`].flatMap(
        (t) => tags.get(t) ?? [],
      );
    });
  const one = (...names: string[]) => all(...names)[0];
  const said = all('type', 'type.genre');
  const type = TYPES.find(([pattern]) =>
    said.some((t) => pattern.test(t.toLowerCase().replace(/.*[/#](?=[\w ]+$)/, ''))),
  )?.[1];
  c.type(type, 'DC.type');
  c.text('title', textOnly(one('title') ?? ''), 'DC.title');
  c.names(
    'author',
    all('creator', 'creator.personalname', 'creator.author', 'contributor.author'),
    'DC.creator',
  );
  c.names('editor', all('contributor.editor'), 'DC.contributor.editor');
  // dateSubmitted, dateAccepted and available are days of handling, not of publication.
  c.date(
    'issued',
    one('issued', 'date.issued') ??
      one('date.published') ??
      one('date') ??
      one('date.created', 'created', 'date.copyright', 'dateCopyrighted'),
    'DC.date',
  );
  const citation = one('bibliographicCitation', 'identifier.citation', 'source.citation');
  const parts = CITATION.exec(citation ?? '')?.groups;
  const container = one('source.journal', 'ispartof', 'relation.ispartof', 'source') ?? parts?.title;
  const usable =
    container && !/^https?:|^urn:|^\d{4}-\d{3}[\dX]$|issn/i.test(container) && container.length < 200;
  if (usable && type !== 'thesis') {
    const whole = CITATION.exec(container)?.groups?.title;
    c.text(
      type === 'report' || type === 'book' ? 'collection-title' : 'container-title',
      (whole ?? container).replace(/[\s,.;]+$/, ''),
      'DC.isPartOf',
    );
  }
  c.text('publisher', one('publisher', 'publisher.institution'), 'DC.publisher');
  c.text('language', one('language', 'language.iso'), 'DC.language');
  c.text(
    'abstract',
    textOnly(one('abstract', 'description.abstract', 'description') ?? ''),
    'DC.description',
  );
  const identifiers = all(
    'identifier',
    'identifier.doi',
    'identifier.isbn',
    'identifier.uri',
    'identifier.other',
  );
  c.text('DOI', identifiers.map(findDoi).find(Boolean), 'DC.identifier');
  c.text(
    'ISBN',
    identifiers
      .filter((i) => !findDoi(i) && !/^https?:/.test(i))
      .map(findIsbn)
      .find(Boolean),
    'DC.identifier',
  );
  c.text(
    'ISSN',
    one('identifier.issn', 'source.issn') ??
      /(\d{4}-\d{3}[\dX])/.exec([one('source'), one('ispartof')].join(' '))?.[1],
    'DC.identifier.issn',
  );
  c.text('volume', one('citation.volume', 'source.volume') ?? parts?.volume, 'DC.citation.volume');
  c.text(
    'issue',
    one('citation.issue', 'source.issue') ?? parts?.issue ?? parts?.issue2,
    'DC.citation.issue',
  );
  c.text(
    'page',
    pageRange(one('citation.spage'), one('citation.epage')) ?? pageRange(parts?.page?.replace(/\s/g, '')),
    'DC.citation.spage',
  );
  return c.found;
}
