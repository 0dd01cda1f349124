/**
 * Builds the demo library with the product's own services: imports files, captures pages from the stand-ins, keeps
 * passages. Does nothing when the data folder already holds a library. The stand-ins must be running.
 */
import { recognise } from '../../src/lib/core/source/index';
import { describe } from '../../src/lib/core/passages/index';
import { defaultContext, scoped } from '../../src/lib/server/access/context';
import { closeDatabase, database } from '../../src/lib/server/db/open';
import { readKept } from '../../src/lib/server/files/store';
import { filedIn, fileSources, insertProject } from '../../src/lib/server/projects/repository';
import { picturesOf } from '../../src/lib/server/copies/pictures';
import { getCopy } from '../../src/lib/server/copies/repository';
import { getJob, type Job } from '../../src/lib/server/jobs/repository';
import { getSource } from '../../src/lib/server/sources/repository';
import { keepLeads } from '../../src/lib/server/leads';
import { keepNote, type Note } from '../../src/lib/server/notes';
import { insertPreset } from '../../src/lib/server/presets/repository';
import { insertSection, placeSources, sectionNamed } from '../../src/lib/server/projects/sections';
import { answerHere, capture, type CaptureResult } from '../../src/lib/server/capture';
import { changeMany, keepPassage, linkPassages, listPassages } from '../../src/lib/server/passages';
import { changeOutline, itemsOfOutline, listSections } from '../../src/lib/server/projects';
import { keepReading } from '../../src/lib/server/reading';
import { setTagLooks } from '../../src/lib/server/tags';
import { addTask } from '../../src/lib/server/tasks';
import { answerImport, importFile, type ImportReport, type ImportResult } from '../../src/lib/server/imports';
import { checkSource, editSource } from '../../src/lib/server/sources';
import { closePools } from '../../src/lib/server/workers/pools';
import { BLOG, GUIDE, MARSH, NEWS, THESIS, TURBINES, type Part } from '../../stand-ins/texts';
import { writeFrom } from './draft';
import { ECOLOGY, OTHER_FILE, SOURCES, TAGS } from './sources';

const ctx = await defaultContext(await database());

async function settled(job: Job): Promise<Job> {
  for (;;) {
    const now = await getJob(ctx, job.id);
    if (now.state === 'failed') throw new Error(`${JSON.stringify(job.input)}: ${now.error?.message}`);
    if (now.state === 'done') {
      const asks = ['here', 'asks'].includes((now.result as CaptureResult | ImportResult).kind);
      if (!asks) await scoped(ctx, 'job').where({ id: job.id }).update({ state: 'dismissed' });
      return now;
    }
    await new Promise((resolve) => setTimeout(resolve, 20));
  }
}

/** Words that tell which tag a passage of the demo gets. */
const PASSAGE_TAGS: [RegExp, string][] = [
  [/marsh|eel ?grass|saltmarsh/i, 'marsh'],
  [/toll|ledger|pence|rent/i, 'money'],
  [/gate|sluice/i, 'gates'],
];
const tagsFor = (words: string) => PASSAGE_TAGS.filter(([found]) => found.test(words)).map(([, tag]) => tag);

async function keepAll(copyId: string, parts: Part[]): Promise<number> {
  const { text, reading_sha256 } = await getCopy(ctx, copyId);
  const html = (await readKept(reading_sha256)).toString('utf8');
  const paragraphs = html
    .split(/<p[\s>]/)
    .slice(1)
    .map((p) => p.replace(/<[^>]*>/g, ''));
  let kept = 0;
  for (const sentence of parts.flatMap((p) => p.paragraphs.flat())) {
    if (!sentence.gist) continue;
    const words = sentence.text.trim();
    const start = text.indexOf(words);
    if (start === -1) throw new Error(`not in the copy: ${words}`);
    const nth = paragraphs.findIndex((p) => p.includes(words)) + 1;
    await keepPassage(ctx, {
      copyId,
      selectors: describe(text, start, start + words.length),
      kind: sentence.kind ?? 'quotation',
      tint: sentence.tint ?? 'claim',
      gist: sentence.gist,
      ownWords: sentence.own ?? '',
      locator: { label: 'paragraph', value: String(nth) },
      visibility: 'library',
      tags: tagsFor(`${words} ${sentence.gist}`),
    });
    kept++;
  }
  return kept;
}

/** Leads, notes, sections and a capture preset. */
async function putDown(thesisId: string, paperId: string): Promise<void> {
  const [chapter] = await listSourcesByTitle('Tide mills of the northern sounds');
  await keepLeads(ctx, { text: LEADS, projectId: thesisId, metIn: chapter?.id ?? null });
  const thoughts: Note[] = [];
  for (const body of [...THOUGHTS].reverse())
    thoughts.push(await keepNote(ctx, { body, projectId: thesisId, sourceId: null }));
  if (chapter) await keepNote(ctx, { ...comparing(chapter.id, thoughts[1]!.id), projectId: thesisId });
  const sections = [];
  for (const name of ['How a tide mill works', 'Why the mills closed', 'What grew back'])
    sections.push(await sectionNamed(ctx, thesisId, name));
  await sectionNamed(ctx, paperId, 'Sites');
  const [works, closed, grew] = sections.map((section) => section.id) as [string, string, string];
  const under = async (parentId: string, name: string) =>
    (await insertSection(ctx, { projectId: thesisId, parentId, name })).id;
  const gates = await under(works, 'Gates and ponds');
  const silt = await under(closed, 'Silt');
  await under(closed, 'Law and dredging');
  for (const [section, titles] of [
    [works, ['Tide mills of the northern sounds', 'The wheel and the wage', 'Let the gate down']],
    [gates, ['Self-closing gate for tidal ponds', 'Dam building in clay']],
    [closed, ['Ledgers of the harbour towns', 'A lawyer at low water', 'The last wheels']],
    [silt, ['Rates of infill in abandoned mill ponds']],
    [grew, ['Glasswort comes home', 'Second survey of the northern ponds']],
  ] as const)
    for (const title of titles) {
      const [source] = await listSourcesByTitle(title);
      const filed = source && (await filedIn(ctx, thesisId, [source.id])).has(source.id);
      if (filed) await placeSources(ctx, section, [source.id]);
    }

  await setTagLooks(ctx, {
    looks: {
      leases: { tint: 'ochre', pattern: 'full', group: 'What it is about' },
      law: { tint: 'brick', pattern: 'stripes', group: 'What it is about' },
      marsh: { tint: 'moss', pattern: 'full', group: 'What it is about' },
      survey: { tint: 'lagoon', pattern: 'chequers', group: 'What it is' },
      voices: { tint: 'heather', pattern: 'dots', group: 'What it is' },
    },
  });

  await insertPreset(ctx, {
    name: 'News for the thesis',
    projectId: thesisId,
    sectionId: sections[1]!.id,
    type: 'article-newspaper',
    asked: ['title', 'author', 'issued', 'container-title', 'page'],
    defaults: { 'publisher-place': 'Northsound' },
    tags: ['news'],
    keepPage: true,
    keepPdf: false,
  });
}

/** What is kept beside passages: sections, links, things to do, words on a whole work and from print. */
async function fileThem(thesisId: string): Promise<number> {
  const { items } = await listPassages(ctx, { projectId: thesisId }, 500, 'source');
  const sections = (await listSections(ctx)).filter((s) => s.projectId === thesisId);
  const of = (tag: string) => items.filter((p) => p.tags.includes(tag)).map((p) => p.id);
  const place = (name: string, ids: string[]) => {
    const section = sections.find((s) => s.name === name);
    return section && ids.length ? changeMany(ctx, ids, { act: 'place', sectionId: section.id }) : undefined;
  };
  await place('What grew back', of('marsh'));
  await place('Why the mills closed', of('money'));
  await place('How a tide mill works', of('gates'));
  // One's own sentences stand before what bears them out.
  const say = async (name: string, kind: 'sentence' | 'question', words: string, first: boolean) => {
    const section = sections.find((s) => s.name === name);
    if (!section) return;
    const here = (await itemsOfOutline(ctx, thesisId)).filter((i) => i.sectionId === section.id);
    await changeOutline(ctx, thesisId, {
      changes: [
        {
          act: 'put',
          items: [{ ref: 'new', kind, words }],
          sectionId: section.id,
          before: first ? (here[0]?.ref ?? null) : null,
        },
      ],
    });
  };
  await say(
    'How a tide mill works',
    'sentence',
    'A tide mill keeps the hours of the moon, not of the miller.',
    true,
  );
  await say(
    'Why the mills closed',
    'sentence',
    'They closed one by one as silt, wages and the law told against them.',
    true,
  );
  await say(
    'Law and dredging',
    'sentence',
    'Harbour acts made the dredging of ponds the business of nobody.',
    true,
  );
  await say('Law and dredging', 'question', 'Which of the acts names the mills at all?', false);
  await say(
    'What grew back',
    'sentence',
    'Where gates were left open, marsh came back within a decade.',
    true,
  );
  const [marsh, otherMarsh] = of('marsh');
  const [gate] = of('gates');
  if (marsh && otherMarsh) await linkPassages(ctx, otherMarsh, marsh, 'supports');
  if (marsh && gate && gate !== marsh) await linkPassages(ctx, gate, marsh, 'contradicts');
  const task = { sourceId: null, visibility: 'library' as const };
  if (marsh)
    await addTask(ctx, {
      ...task,
      text: 'Check the table of sites against the map',
      due: '2026-12-04',
      passageId: marsh,
    });
  if (gate)
    await addTask(ctx, { ...task, text: 'Ask who kept the gates after 1911', due: null, passageId: gate });
  const [chapter] = await listSourcesByTitle('Tide mills of the northern sounds');
  if (!chapter || !items[0]) return 0;
  const said = { selectors: null, visibility: 'library' as const };
  await keepPassage(ctx, {
    ...said,
    kind: 'quotation',
    tint: 'term',
    copyId: null,
    sourceId: chapter.id,
    exact: 'A tide mill, unlike any other, is idle not when the weather fails but when the clock says so.',
    wording: 'A tide mill […] is idle not when the weather fails but when the clock says so.',
    gist: 'Idle by the clock, not by the weather',
    ownWords: '',
    locator: { label: 'page', value: '41' },
    tags: ['time'],
  });
  await keepPassage(ctx, {
    ...said,
    kind: 'response',
    tint: 'doubt',
    copyId: (items.find((p) => p.id === marsh) ?? items[0]).copyId,
    gist: 'Only two sites carry the argument',
    ownWords:
      'The claim is about every restored pond, but what was measured comes from two of them. Look for a third.',
    locator: null,
    tags: [],
  });
  return 2;
}

/** The chart of a page with what is noted on it. */
async function keepChart(copyId: string): Promise<number> {
  const [sha256] = [...(await picturesOf(ctx, copyId)).keys()];
  if (!sha256) return 0;
  await keepPassage(ctx, {
    copyId,
    selectors: null,
    kind: 'figure',
    tint: 'evidence',
    exact: 'Rise of pond floors.',
    gist: 'Floors rise fast at first, then hardly at all',
    ownWords: '',
    locator: { label: 'figure', value: '1' },
    visibility: 'library',
    tags: ['marsh'],
    figure: {
      place: { on: 'picture', sha256, box: { x: 0, y: 0, width: 1, height: 1 } },
      number: 'Figure 1',
      alt: 'Points of 41 ponds: the floor rises steeply in the first years since the breach and levels off later.',
      drawing: [
        { id: 'bend', tint: 'doubt', shape: 'arrow', from: [0.55, 0.62], to: [0.42, 0.35] },
        { id: 'why', tint: 'doubt', shape: 'words', at: [0.56, 0.6], text: 'Why does it bend here?' },
        { id: 'late', tint: 'evidence', shape: 'box', from: [0.7, 0.08], to: [0.95, 0.3] },
      ],
    },
  });
  return 1;
}

async function listSourcesByTitle(title: string): Promise<{ id: string }[]> {
  return (await scoped<{ id: string; title: string }>(ctx, 'source').where({ title }).select('id')) as {
    id: string;
  }[];
}

/** How far one is with the reading, and when what is checked was added: over the last three months, the same each time. */
async function spread(): Promise<void> {
  const rows = (await scoped(ctx, 'source')
    .whereNotNull('checked')
    .orderBy('sort_key')
    .select('id', 'added')) as unknown as { id: string; added: string }[];
  const states = ['read', 'to-read', 'reading', 'read', 'aside'] as const;
  for (const [i, { id, added }] of rows.entries()) {
    const days = (i * i * 7 + i * 3) % 90;
    const earlier = new Date(Date.parse(added) - days * 24 * 3600 * 1000).toISOString();
    await scoped(ctx, 'source').where({ id }).update({ added: earlier });
    const state = i % 2 ? undefined : states[(i / 2) % states.length];
    if (state) await keepReading(ctx, { ids: [id], state, priority: i % 12 === 2 ? 'high' : null });
  }
}

const LEADS = `Menon, R. (2022). Reading old gauge sheets. Estuary and Shore, 15(1), 3–19.
Åsen, I. (2019). Eel grass and the shape of sluices. Estuary and Shore, 12(2), 117–130.
Haverkamp, J. “The Miller’s Almanac.” Northsound Quarterly, vol. 6, no. 2, 1933, pp. 88–97.
the pamphlet on the Skerry flood, 1954, cited without a title in the harbour ledger`;

/** A note with a look, that names a source and another note. */
const comparing = (source: string, note: string) => ({
  sourceId: null,
  tint: 'moss' as const,
  content: [
    {
      type: 'paragraph' as const,
      content: [
        { type: 'text' as const, text: 'For the second chapter, read ' },
        { type: 'named' as const, attrs: { kind: 'source' as const, id: source, label: '' } },
        { type: 'text' as const, text: ' again beside ' },
        { type: 'named' as const, attrs: { kind: 'note' as const, id: note, label: '' } },
      ],
    },
    {
      type: 'bulletList' as const,
      content: ['who held the key of the gate', 'what a neap tide cost the miller'].map((text, i) => ({
        type: 'listItem' as const,
        content: [
          {
            type: 'paragraph' as const,
            content: [{ type: 'text' as const, text, ...(i ? { marks: [{ type: 'bold' as const }] } : {}) }],
          },
        ],
      })),
    },
  ],
});

const THOUGHTS = [
  'Every dam keeps time: could toll books be read as tide tables? Ask Ravi before the seminar.',
  'The guide says dress every third week, the ledger pays the dresser monthly. Which is it?',
];

async function build(): Promise<void> {
  await ctx.db('library').where({ id: ctx.libraryId }).update({ name: 'Tide mills' });
  const thesis = await insertProject(ctx, { name: 'Tide mills thesis', style: 'apa', locale: 'en-US' });
  const paper = await insertProject(ctx, {
    name: 'Ponds and salt marsh, paper',
    style: 'vancouver',
    locale: 'en-GB',
  });

  const bytes = new TextEncoder().encode(JSON.stringify(SOURCES));
  const imported = await settled(
    await importFile(ctx, bytes, { fileName: 'tide-mills.json', projectId: thesis.id, toIntake: false }),
  );
  const other = new TextEncoder().encode(OTHER_FILE);
  // Some of it is in the library already; both are kept, so that there are doubles to look at.
  const second = await settled(
    await importFile(ctx, other, { fileName: 'from-a-colleague.bib', projectId: thesis.id, toIntake: false }),
  );
  if ((second.result as ImportResult).kind === 'asks') {
    await answerImport(ctx, second.id, {});
    await settled(second);
  }
  const idOf = new Map((imported.result as ImportReport).added.map((a, i) => [String(SOURCES[i]!.id), a.id]));
  await fileSources(
    ctx,
    paper.id,
    ECOLOGY.map((key) => idOf.get(key)!),
  );
  for (const [tag, keys] of Object.entries(TAGS))
    for (const key of keys) {
      const source = await getSource(ctx, idOf.get(key)!);
      await editSource(ctx, source.id, source.revision, {
        fields: {},
        tags: [...source.record.retexa.tags, tag],
      });
    }

  const pages: [string, Part[] | undefined, boolean][] = [
    ['https://marshletters.example/articles/3-1-7', MARSH, true],
    ['https://repository.northsound.example/handle/1/4455', THESIS, true],
    ['10.5555/shr.9.33', TURBINES, true],
    ['https://longsoundwalks.example/posts/thirty-one-ponds', BLOG, true],
    ['https://news.portledger.example/2023/03/14/last-miller.html', NEWS, false],
    ['https://harbourcouncil.example/guides/dressing', GUIDE, false],
    ['https://repository.northsound.example/handle/1/5120', undefined, false],
    ['https://openindex.example/records/w3107', undefined, false],
    ['https://estuaryshore.example/articles/12-2-101', undefined, false],
  ];
  let passages = 0;
  for (const [text, parts, checked] of pages) {
    const [job] = await capture(ctx, { text, projectId: thesis.id });
    let result = (await settled(job!)).result as CaptureResult;
    if (result.kind === 'here') {
      // The demo shows doubles, so these captures are kept beside what is there already.
      await answerHere(ctx, job!.id, 'both');
      result = (await settled(await getJob(ctx, job!.id))).result as CaptureResult;
    }
    if (result.kind !== 'kept') throw new Error(`${text} was not kept`);
    const { sourceId, copyId } = result;
    if (parts && copyId) passages += (await keepAll(copyId, parts)) + (await keepChart(copyId));
    if (checked) await checkSource(ctx, sourceId, (await getSource(ctx, sourceId)).revision, true);
    if (text.includes('3-1-7') || recognise(text).kind === 'doi')
      await fileSources(ctx, paper.id, [sourceId]);
  }
  await putDown(thesis.id, paper.id);
  passages += await fileThem(thesis.id);
  await writeFrom(ctx, thesis.id);
  await spread();
  const [{ n }] = (await scoped(ctx, 'source').count({ n: '*' })) as unknown as [{ n: number }];
  console.log(`demo library: ${n} sources, ${passages} passages`);
}

const [{ n }] = (await scoped(ctx, 'source').count({ n: '*' })) as unknown as [{ n: number }];
if (n === 0) await build();
else console.log(`demo library: kept as it is, ${n} sources`);
await closePools();
await closeDatabase();
