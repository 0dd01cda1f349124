/**
 * A set of works, some of them given twice or three times by sources of several kinds, for measuring how well records of one
 * work are told from records of two. The same seed gives the same set.
 *
 * A work is made whole; a record of it is what one kind of source would give: a registry of DOIs, a publisher's page, a
 * library's catalogue, a citation database, somebody's own .bib, the text of a PDF, a page as it was captured. Each leaves
 * out, abbreviates, shouts, transliterates and mistypes in its own way, one independently of the other. Besides, a third of
 * the works come with a neighbour that looks like it and is another work: another edition or volume, Part 2, next year's
 * report, the journal article of a conference paper, its preprint, a chapter of the book, a review, an erratum, a reply, a
 * dataset, a translation, a thesis, a reprint of the same title, pieces that share their title with many.
 *
 * What is taken for one work is what a reference list would print once. A preprint and its version of record, a conference
 * paper and its article, a thesis and its book are two.
 */
import { sourceRecord, type CslName, type SourceRecord } from '../../src/lib/core/source';
import { random } from '../../scripts/large-library';
import { ENGLISH, TONGUES, type Tongue } from './words';

/** A record and the work it is of. */
export interface Labelled {
  id: string;
  work: number;
  record: SourceRecord;
}

type Fields = Partial<Omit<SourceRecord, 'retexa'>>;
interface Work {
  kind: Fields['type'];
  tongue: Tongue;
  fields: Fields;
  /** The container as it is abbreviated. */
  short?: string;
  isbns?: string[];
  /** The title in English, where it is in another script. */
  translated?: string;
}

const SOURCES = ['registry', 'page', 'catalogue', 'database', 'own', 'pdf', 'web'] as const;

/** The set: `size` works and their neighbours; a third of the works are given more than once. */
export function worksTwice(size: number, seed: number): Labelled[] {
  const next = random(seed);
  const chance = (p: number) => next() < p;
  const pick = <T>(list: readonly T[]): T => list[Math.floor(next() * list.length)]!;
  const whole = (from: number, to: number) => from + Math.floor(next() * (to - from + 1));

  const names = (tongue: Tongue, most: number): CslName[] =>
    Array.from({ length: Math.min(most, 1 + Math.floor(next() * next() * 6)) }, () => ({
      family: pick(tongue.families),
      given: [pick(tongue.given), ...(chance(0.3) ? [`${pick('ABCDEFGHJKLMNPRSTW'.split(''))}.`] : [])].join(
        ' ',
      ),
      ...(chance(0.05) ? { 'non-dropping-particle': pick(['van', 'de', 'von der']) } : {}),
    }));
  const capital = (text: string) => text.charAt(0).toUpperCase() + text.slice(1);
  function phrase(t: Tongue): string {
    const noun = () => pick(t.nouns);
    const some = () => (chance(0.5) ? `${pick(t.adjectives)} ${noun()}` : noun());
    const [of, inside, and] = t.joins;
    return pick([
      () => `${some()} ${and} ${some()} ${inside} ${noun()}`,
      () => `${some()} ${of} ${some()}`,
      () => `${some()} ${inside} ${some()} ${and} ${noun()}`,
      () => `${noun()}, ${noun()} ${and} ${some()}`,
    ])();
  }
  const title = (t: Tongue): string => {
    const main = capital(phrase(t));
    if (chance(0.35)) return `${main}: ${pick([capital, (x: string) => x])(phrase(t))}`;
    return chance(0.1) ? `${main}?` : main;
  };
  let isbnsMade = 0;
  function isbn(): string {
    const body = `97${chance(0.1) ? 9 : 8}${String(100_000_000 + isbnsMade++ * 7_919 + whole(0, 90)).slice(0, 9)}`;
    const sum = [...body].reduce((s, d, i) => s + Number(d) * (i % 2 ? 3 : 1), 0);
    return body + String((10 - (sum % 10)) % 10);
  }
  let doisMade = 0;
  const doi = () =>
    `10.${whole(1000, 9999)}/${pick(['j.', 's', 'x', ''])}${whole(1000, 9999)}.${2000 + doisMade++}`;
  const date = (year: number, exact = chance(0.4)) => ({
    'date-parts': [exact ? [year, whole(1, 12), whole(1, 28)] : [year]] as number[][],
  });

  function article(t: Tongue, common = false): Work {
    const year = whole(1975, 2025);
    const [journal, short] = pick(t.journals);
    const first = whole(1, 900);
    const elocator = chance(0.12);
    return {
      kind: 'article-journal',
      tongue: t,
      short,
      fields: {
        title: common ? pick(t.common) : title(t),
        ...(common && chance(0.5) ? {} : { author: names(t, 8) }),
        issued: date(year),
        'container-title': journal,
        volume: String(year - 1950 + whole(0, 2)),
        issue: String(whole(1, 6)),
        page: elocator ? `e${whole(10_000, 99_999)}` : `${first}-${first + whole(3, 30)}`,
        ...(year > 1998 && chance(0.85) ? { DOI: doi() } : {}),
        ...(chance(0.5) ? { ISSN: '1234-5679' } : {}),
        ...(chance(0.5) ? { language: t.tag } : {}),
      },
    };
  }
  function book(t: Tongue): Work {
    const [publisher, place] = pick(t.publishers);
    return {
      kind: 'book',
      tongue: t,
      isbns: chance(0.8) ? [isbn(), isbn()] : [],
      fields: {
        title: title(t),
        author: names(t, 3),
        issued: date(whole(1950, 2025), false),
        publisher,
        'publisher-place': place,
        ...(chance(0.2) ? { edition: String(whole(2, 4)) } : {}),
      },
    };
  }
  function chapter(t: Tongue, inside = book(t)): Work {
    const { author, title: container, edition: _edition, ...rest } = inside.fields;
    const first = whole(1, 400);
    return {
      kind: 'chapter',
      tongue: t,
      isbns: inside.isbns ?? [],
      fields: {
        ...rest,
        title: title(t),
        author: names(t, 3),
        editor: author,
        'container-title': container,
        page: `${first}-${first + whole(8, 30)}`,
        ...(chance(0.4) ? { DOI: doi() } : {}),
      },
    };
  }
  function paper(t: Tongue): Work {
    const year = whole(1990, 2025);
    const first = whole(1, 900);
    const meeting = `${capital(pick(ENGLISH.adjectives))} ${capital(pick(ENGLISH.nouns))}`;
    return {
      kind: 'paper-conference',
      tongue: t,
      short: `Proc. ${meeting
        .split(' ')
        .map((w) => w.slice(0, 5) + '.')
        .join(' ')}`,
      fields: {
        title: title(t),
        author: names(t, 6),
        issued: date(year, false),
        'container-title': `Proceedings of the ${whole(2, 40)}th International Conference on ${meeting}`,
        page: `${first}-${first + whole(5, 14)}`,
        ...(chance(0.6) ? { DOI: doi() } : {}),
      },
    };
  }
  const thesis = (t: Tongue): Work => ({
    kind: 'thesis',
    tongue: t,
    fields: {
      title: title(t),
      author: names(t, 1),
      issued: date(whole(1970, 2025), false),
      genre: pick(['PhD thesis', 'MA thesis', 'Doctoral dissertation']),
      publisher: `University of ${pick(['Arless', 'Husum', 'Rennes', 'Northgate', 'Vigo'])}`,
    },
  });
  const report = (t: Tongue): Work => ({
    kind: 'report',
    tongue: t,
    fields: {
      title: chance(0.3) ? `Annual report on ${pick(t.nouns)}` : title(t),
      author: [
        {
          literal: `${pick(['Ministry', 'Institute', 'Office', 'Council'])} for ${capital(pick(ENGLISH.nouns))}`,
        },
      ],
      issued: date(whole(1985, 2025)),
      ...(chance(0.6) ? { number: `${pick(['WP', 'TR', 'R'])}-${whole(10, 999)}` } : {}),
      ...(chance(0.5) ? { publisher: pick(t.publishers)[0] } : {}),
    },
  });
  function webpage(t: Tongue): Work {
    const words = title(t);
    return {
      kind: chance(0.5) ? 'webpage' : 'article-newspaper',
      tongue: t,
      fields: {
        title: words,
        ...(chance(0.7) ? { author: names(t, 2) } : {}),
        issued: { 'date-parts': [[whole(2005, 2025), whole(1, 12), whole(1, 28)]] },
        'container-title': pick(['The Arless Courier', 'Tidewatch', 'Die Küstenzeitung', 'Le Phare']),
        URL: `https://${pick(['courier', 'tidewatch', 'phare'])}.example/${whole(2005, 2025)}/${whole(1, 99_999)}`,
      },
    };
  }
  function tongue(): Tongue {
    let at = next();
    return TONGUES.find((t) => (at -= t.share) < 0) ?? ENGLISH;
  }
  const withTitle = (work: Work, words: string): Work => ({
    ...work,
    fields: { ...work.fields, title: words },
  });
  function make(): Work {
    const t = tongue();
    const at = next();
    const work =
      at < 0.52
        ? article(t, chance(0.12))
        : at < 0.66
          ? book(t)
          : at < 0.76
            ? chapter(t)
            : at < 0.86
              ? paper(t)
              : at < 0.91
                ? thesis(t)
                : at < 0.95
                  ? report(t)
                  : webpage(t);
    if (t.tag === 'ru') work.translated = capital(phrase(ENGLISH));
    return work;
  }

  /** A work that looks like another and is not it; nothing where the kind has no such neighbour. */
  function neighbour({ kind, tongue: t, fields: f, ...rest }: Work): Work | undefined {
    const year = f.issued!['date-parts']![0]![0]!;
    const { DOI: _doi, page: _page, ...bare } = f;
    const beside = (change: Fields, more: Partial<Work> = {}): Work => ({
      kind: change.type ?? kind,
      tongue: t,
      ...rest,
      ...more,
      fields: { ...f, ...change },
    });
    const pages = () => {
      const first = whole(1, 900);
      return `${first}-${first + whole(3, 30)}`;
    };
    const own = () => (f.DOI ? { DOI: doi() } : {});
    switch (kind) {
      case 'book':
        return pick([
          () =>
            beside(
              { edition: String(Number(f.edition ?? 1) + 1), issued: date(year + whole(2, 9), false) },
              { isbns: rest.isbns?.length ? [isbn()] : [] },
            ),
          () =>
            beside(
              { volume: '2', title: f.title, issued: date(year + whole(0, 1), false) },
              { isbns: rest.isbns?.length ? [isbn()] : [] },
            ),
          () =>
            beside({
              title: 'Introduction',
              editor: f.author,
              author: names(t, 1),
              'container-title': f.title,
              type: 'chapter',
              page: `1-${whole(9, 30)}`,
            }),
          () => ({
            ...article(t),
            fields: {
              ...article(t).fields,
              title: chance(0.5) ? f.title! : `Review of ${f.title!}`,
              author: names(t, 1),
              issued: date(year + 1),
            },
          }),
          () =>
            beside(
              {
                type: 'thesis',
                genre: 'PhD thesis',
                publisher: 'University of Arless',
                edition: undefined,
                issued: date(year - whole(1, 3), false),
              },
              { isbns: [] },
            ),
          () =>
            beside(
              { title: title(t), issued: date(year, false) },
              { isbns: rest.isbns?.length ? [isbn()] : [] },
            ),
        ])();
      case 'article-journal':
        return pick([
          () => beside({ title: `${f.title!}. Part 2`, page: pages(), ...own() }),
          () => beside({ title: `Erratum: ${f.title!}`, page: pages(), ...own() }),
          () => beside({ title: `Reply to “${f.title!}”`, author: names(t, 2), page: pages(), ...own() }),
          () => beside({ ...article(t).fields, title: f.title!, author: names(t, 3) }),
          () => ({
            ...beside({
              type: 'article',
              page: undefined,
              volume: undefined,
              issue: undefined,
              'container-title': undefined,
              genre: 'Preprint',
              DOI: `10.48550/arXiv.${whole(1000, 2500)}.${whole(10_000, 99_999)}`,
              issued: date(year - whole(0, 1)),
            }),
            kind: 'article' as const,
          }),
          () =>
            beside({
              type: 'dataset',
              volume: undefined,
              issue: undefined,
              page: undefined,
              'container-title': undefined,
              publisher: 'Open Data Store',
              DOI: doi(),
            }),
          () =>
            beside({ title: pick(t.common), page: pages(), issue: String(Number(f.issue) + 1), ...own() }),
          () => beside({ title: title(t), page: pages(), ...own() }),
        ])();
      case 'chapter':
        return beside({
          title: chance(0.5) ? 'Conclusion' : title(t),
          author: chance(0.5) ? f.author : names(t, 2),
          page: pages(),
          ...own(),
        });
      case 'paper-conference': {
        const journal = article(t);
        return {
          ...journal,
          fields: {
            ...journal.fields,
            title: f.title!,
            author: f.author,
            issued: date(year + whole(1, 2)),
            ...(f.DOI ? { DOI: doi() } : {}),
          },
        };
      }
      case 'report':
        return beside({ issued: date(year + 1), ...(f.number ? { number: `R-${whole(1000, 2000)}` } : {}) });
      case 'article-newspaper':
        return beside({
          issued: { 'date-parts': [[year + 1, whole(1, 12), whole(1, 28)]] },
          URL: `${f.URL!}1`,
        });
      case 'thesis':
        return {
          ...article(t),
          fields: { ...article(t).fields, title: f.title!, author: f.author, issued: date(year + 1) },
        };
      default:
        return {
          kind,
          tongue: t,
          ...rest,
          fields: { ...bare, title: title(t), URL: `https://tidewatch.example/${whole(1, 99_999)}` },
        };
    }
  }

  // What sources leave out, abbreviate and mistype.
  const bareLetters = (text: string) => text.normalize('NFD').replace(/\p{M}/gu, '').replace(/ß/g, 'ss');
  function typo(text: string): string {
    const at = whole(1, Math.max(1, text.length - 2));
    return pick([
      () => text.slice(0, at) + text.slice(at + 1),
      () => text.slice(0, at) + text.charAt(at + 1) + text.charAt(at) + text.slice(at + 2),
      () => text.slice(0, at) + pick('aeionrst'.split('')) + text.slice(at),
    ])();
  }
  const titleCase = (text: string) =>
    text.replace(/(^|[\s-])(\p{Ll})(?=\p{L}{3})/gu, (_m, b: string, c: string) => b + c.toUpperCase());
  const LATIN: Record<string, string> = Object.fromEntries(
    'а=a б=b в=v г=g д=d е=e ё=e ж=zh з=z и=i й=i к=k л=l м=m н=n о=o п=p р=r с=s т=t у=u ф=f х=kh ц=ts ч=ch ш=sh щ=shch ъ= ы=y ь= э=e ю=iu я=ia'
      .split(' ')
      .map((p) => p.split('=') as [string, string]),
  );
  /** Cyrillic in the romanisation of library catalogues (ALA-LC without its ligatures; from memory). */
  const romanised = (text: string) =>
    [...text]
      .map((c) => {
        const low = LATIN[c.toLowerCase()];
        return low === undefined ? c : c === c.toLowerCase() ? low : capital(low);
      })
      .join('');
  const initials = (n: CslName): CslName => ({
    ...n,
    ...(n.given
      ? {
          given: n.given
            .split(/[\s]+/)
            .map((w) =>
              w
                .split('-')
                .map((x) => `${x.charAt(0)}.`)
                .join('-'),
            )
            .join(pick([' ', ''])),
        }
      : {}),
  });
  const asOne = (n: CslName): CslName => ({
    literal: n.literal ?? [n.given, n['non-dropping-particle'], n.family].filter(Boolean).join(' '),
  });
  const umlauts = (text: string) =>
    text.replace(/[äöüÄÖÜ]/g, (c) => ({ ä: 'ae', ö: 'oe', ü: 'ue', Ä: 'Ae', Ö: 'Oe', Ü: 'Ue' })[c]!);
  const shortRange = (page: string) => {
    const m = /^(\d+)-(\d+)$/.exec(page);
    if (!m || m[1]!.length !== m[2]!.length) return page;
    let i = 0;
    while (i < m[1]!.length - 1 && m[1]![i] === m[2]![i]) i++;
    return `${m[1]!}-${m[2]!.slice(i)}`;
  };

  function given({ kind, fields, short, isbns = [], tongue: t, translated }: Work): SourceRecord {
    const isBook = kind === 'book' || kind === 'chapter';
    const source = pick(
      SOURCES.filter((s) =>
        s === 'catalogue'
          ? isBook || kind === 'thesis' || kind === 'report'
          : s === 'registry'
            ? fields.DOI !== undefined
            : s === 'web'
              ? kind === 'webpage' || kind === 'article-newspaper' || chance(0.3)
              : true,
      ),
    );
    const f: Record<string, unknown> = { ...fields, type: kind };
    const keepOnly = (p: number, ...names: string[]) => {
      for (const name of names) if (!chance(p)) delete f[name];
    };
    const each = (change: (n: CslName) => CslName) => {
      for (const role of ['author', 'editor'] as const)
        if (f[role]) f[role] = (f[role] as CslName[]).map(change);
    };
    const letters = (change: (text: string) => string) => {
      f.title = change(f.title as string);
      each(
        (n) =>
          Object.fromEntries(
            Object.entries(n).map(([k, v]) => [k, typeof v === 'string' ? change(v) : v]),
          ) as CslName,
      );
    };
    if (isbns.length)
      f.ISBN =
        source === 'catalogue' && isbns[1]
          ? `${isbns[0]!} ${isbns[1]}`
          : pick(isbns.slice(0, chance(0.8) ? 1 : 2));
    const year = fields.issued!['date-parts']![0]![0]!;
    const romans = t.tag === 'ru' && chance(0.4);
    if (romans) letters(romanised);
    switch (source) {
      case 'registry':
        if (chance(0.12) && kind === 'article-journal') f.issued = date(year - 1);
        if (chance(0.15)) f.title = (f.title as string).replace(/(\p{L}{5,})/u, '<i>$1</i>');
        keepOnly(0.9, 'page', 'volume', 'issue');
        break;
      case 'page':
        if (f.DOI)
          f.DOI = pick([`https://doi.org/${fields.DOI!}`, `doi:${fields.DOI!.toUpperCase()}`, fields.DOI!]);
        if (f.page && chance(0.3)) f.page = (f.page as string).split('-')[0];
        if (f['container-title'] && short && chance(0.2)) f['container-title'] = short;
        break;
      case 'catalogue': {
        const words = f.title as string;
        f.title = words
          .replace(/: ?/, ' : ')
          .replace(/(?<=\s)\p{Lu}(?=\p{Ll})/gu, (c) => (t.tag === 'de' ? c : c.toLowerCase()));
        if (f.edition)
          f.edition = pick([
            `${f.edition as string}. ed.`,
            `${f.edition as string}nd ed.`,
            `${f.edition as string}. Aufl.`,
          ]);
        if (kind === 'book' && chance(0.3)) f.author = (f.author as CslName[]).slice(0, 1);
        if (f.publisher && chance(0.4))
          f.publisher = (f.publisher as string).replace(/ (University )?Press| Academic| Books/, '');
        delete f.DOI;
        if (translated && chance(0.5)) f.title = `${f.title as string} [${translated}]`;
        break;
      }
      case 'database':
        each(initials);
        f.title = chance(0.5) ? titleCase(f.title as string) : f.title;
        if (short && chance(0.7)) f['container-title'] = short;
        if (chance(0.5)) letters(bareLetters);
        keepOnly(0.6, 'DOI');
        if (translated && chance(0.5)) f.title = `${f.title as string} [${translated}]`;
        delete f.language;
        if (chance(0.15)) f.page = (f.page as string | undefined)?.split('-')[0];
        break;
      case 'own':
        if (chance(0.35)) f.title = typo(f.title as string);
        if (chance(0.25)) f.title = (f.title as string).split(':')[0];
        if (chance(0.3)) letters(t.tag === 'de' ? umlauts : bareLetters);
        if (chance(0.4)) each(initials);
        if (chance(0.1)) each(asOne);
        if (chance(0.1) && f.author) f.author = (f.author as CslName[]).slice(0, 1);
        if (short && chance(0.4)) f['container-title'] = short;
        if (f.page && chance(0.4)) f.page = shortRange(f.page as string);
        f.issued = { 'date-parts': [[chance(0.03) ? year + 1 : year]] };
        keepOnly(0.75, 'issue', 'publisher-place', 'page', 'ISSN', 'language');
        keepOnly(0.5, 'DOI', 'ISBN');
        if (f.DOI && chance(0.04)) f.DOI = typo(f.DOI as string);
        if (chance(0.06))
          f.type = kind === 'paper-conference' ? 'article-journal' : kind === 'chapter' ? 'book' : kind;
        if (f.type === 'book' && kind === 'chapter') delete f['container-title'];
        break;
      case 'pdf':
        if (chance(0.5)) f.title = (f.title as string).toUpperCase();
        if (chance(0.3)) each(asOne);
        if (f.author && chance(0.2)) f.author = (f.author as CslName[]).slice(0, 1);
        keepOnly(0.6, 'container-title', 'volume', 'issue', 'page', 'issued', 'publisher');
        keepOnly(0.6, 'DOI');
        delete f.language;
        break;
      case 'web':
        f.URL ??= `https://papers.example/${whole(1, 9_999_999)}`;
        if (kind !== 'article-newspaper') f.type = chance(0.5) ? 'webpage' : kind;
        if (f.type === 'webpage' && kind !== 'webpage')
          for (const gone of ['volume', 'issue', 'page', 'publisher', 'edition']) delete f[gone];
        if (chance(0.3))
          f.title = `${f.title as string} | ${(f['container-title'] as string | undefined) ?? 'Papers'}`;
        if (chance(0.2)) delete f.author;
        keepOnly(0.6, 'DOI');
        break;
    }
    return sourceRecord.parse(
      Object.fromEntries(Object.entries(f).filter(([, v]) => v !== undefined && v !== '')),
    );
  }

  const out: Labelled[] = [];
  let works = 0;
  const put = (work: Work, times: number) => {
    const of = works++;
    for (let i = 0; i < times; i++) out.push({ id: `w${of}-${i}`, work: of, record: given(work) });
  };
  for (let n = 0; n < size; n++) {
    const work = chance(0.03) ? withTitle(make(), pick(ENGLISH.common)) : make();
    put(work, chance(0.33) ? (chance(0.15) ? 3 : 2) : 1);
    const near = chance(0.33) ? neighbour(work) : undefined;
    if (near) put(near, chance(0.2) ? 2 : 1);
  }
  return out;
}
