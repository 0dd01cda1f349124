import { fromCslJson } from '../../src/lib/core/capture';
import { PAGES } from '../../stand-ins/pages';
import { REGISTERED } from '../../stand-ins/registry';
import { SITES } from '../../stand-ins/sites';
import type { Label, Labelled } from './label';

const ES = 'Estuary and Shore';
const ISSN = '2770-114X';

/** Labels of the invented web's pages about one work, the pages the rules were tried on while they were written. */
const LABELS: Record<string, { label: Label; vocabularies: string[]; bad?: boolean }> = {
  'marshletters.example/articles/3-1-7': {
    vocabularies: ['highwire', 'html'],
    label: {
      type: 'article-journal',
      title: 'Salt marsh recovery behind breached dams',
      author: 'Ferreira, Ana; Ng, Tsz Ho; Ó Súilleabháin, Cian',
      issued: '2021-11',
      container: 'Marsh Letters',
      volume: '3',
      issue: '1-2',
      page: '7-24',
      DOI: '10.5555/marsh.3.7',
      ISSN: '2049-3630',
    },
  },
  'repository.northsound.example/handle/1/5120': {
    vocabularies: ['dublin-core'],
    bad: true,
    label: {
      type: 'article-journal',
      title: 'Salt marsh recovery behind breached dams',
      author: 'Ferreira, Ana; Ng, Tsz Ho; Ó Súilleabháin, Cian',
      issued: '2021-11',
      container: 'Marsh Letters',
      volume: '3',
      issue: '1-2',
      page: '7-24',
      DOI: '10.5555/marsh.3.7',
      ISSN: '2049-3630',
    },
  },
  'openindex.example/records/w3107': {
    vocabularies: ['json-ld'],
    bad: true,
    label: {
      type: 'article-journal',
      title: 'Grain, toll and tide: Mill leases, 1540–1610',
      author: 'Barrow, E. M.; Tully, J. Q., Jr.',
      issued: '1998',
      container: 'Journal of Coastal Economic History',
      volume: '44',
      page: 'e112',
      DOI: '10.5555/jceh.44.e112',
    },
  },
  'repository.northsound.example/handle/1/4455': {
    vocabularies: ['dublin-core'],
    label: {
      type: 'thesis',
      title: 'Tide mills of the northern sounds',
      author: 'Lindqvist, Maja',
      issued: '2016-05',
    },
  },
  'smallhydro.example/9/2/33': {
    vocabularies: ['highwire'],
    bad: true,
    label: {
      type: 'article-journal',
      title: 'Turbines in old wheelhouses',
      author: 'Sato, Yuki',
      issued: '2020-04',
      container: 'Small Hydropower Review',
      volume: '9',
      issue: '2',
      page: '33-51',
      DOI: '10.5555/shr.9.33',
      ISSN: '1050-124X',
    },
  },
  'news.portledger.example/2023/03/14/last-miller.html': {
    vocabularies: ['json-ld', 'open-graph'],
    label: {
      type: 'article-newspaper',
      title: 'Last miller of the sound hangs up his apron',
      author: 'Raman, Priya; Oakes, Tessa',
      issued: '2023-03-14',
      container: 'Port Ledger',
    },
  },
  'harbourcouncil.example/guides/dressing': {
    vocabularies: ['html'],
    label: {
      type: 'webpage',
      title: 'Dressing a millstone: A practical guide',
      container: 'Harbour Council',
    },
  },
  'longsoundwalks.example/posts/thirty-one-ponds': {
    vocabularies: ['json-ld'],
    label: {
      type: 'post-weblog',
      title: 'Thirty-one ponds',
      author: 'Osei, Kofi',
      issued: '2022-06-02',
      container: 'Long Sound Walks',
    },
  },
  'livingreviews.example/tide-gates': {
    vocabularies: ['html'],
    label: { type: 'webpage', title: 'Tide gates: a living review', author: 'Osei, Kofi' },
  },
  'estuaryshore.example/articles/12-2-101': {
    vocabularies: ['highwire', 'prism', 'links'],
    label: {
      type: 'article-journal',
      title: 'Sluices, mud and the long ebb: How mill ponds filled',
      author: 'Byrne, Nuala; Menon, Ravi',
      issued: '2019-06-14',
      container: ES,
      volume: '12',
      issue: '2',
      page: '101-108',
      DOI: '10.5555/es.12.101',
      ISSN,
    },
  },
  'estuaryshore.example/articles/12-2-117': {
    vocabularies: ['json-ld'],
    label: {
      type: 'article-journal',
      title: 'Eel grass and the shape of sluices',
      author: 'Åsen, Ingrid',
      issued: '2019-06-14',
      container: ES,
      volume: '12',
      issue: '2',
      page: '117-130',
      DOI: '10.5555/es.12.117',
      ISSN,
    },
  },
  'estuaryshore.example/articles/12-2-131': {
    vocabularies: ['microdata'],
    label: {
      type: 'article-journal',
      title: 'Counting tides: A method for undated dams',
      author: 'de la Roche, Paul; van der Zee, Mieke',
      issued: '2019-06-14',
      container: ES,
      volume: '12',
      issue: '2',
      page: '131-139',
      ISSN,
    },
  },
  'estuaryshore.example/articles/12-2-140': {
    vocabularies: ['prism', 'dublin-core'],
    label: {
      type: 'review-book',
      title: 'Review of “Water and Work”',
      author: 'Oakes, Tessa',
      issued: '2019-06-14',
      container: ES,
      volume: '12',
      issue: '2',
      page: '140-142',
      ISSN,
    },
  },
  'strandpress.example/books/water-and-work': {
    vocabularies: ['json-ld'],
    label: {
      type: 'book',
      title: 'Water and Work: Mills, Tides and Towns',
      editor: 'Osei, Kofi; Lindqvist, Maja',
      issued: '2015',
      ISBN: '978-0-306-40615-7',
    },
  },
  'strandpress.example/books/water-and-work/5': {
    vocabularies: ['highwire'],
    label: {
      type: 'chapter',
      title: 'Ledgers of the harbour towns',
      author: 'van der Zee, Mieke',
      editor: 'Osei, Kofi; Lindqvist, Maja',
      issued: '2015',
      container: 'Water and Work: Mills, Tides and Towns',
      page: '88-109',
      DOI: '10.5555/nophone',
      ISBN: '978-0-306-40615-7',
    },
  },
  'dataharbour.example/datasets/tidepond-cores': {
    vocabularies: ['json-ld', 'links'],
    label: {
      type: 'dataset',
      title: 'Cores from nine tide mill ponds',
      author: 'Byrne, Nuala; Long Sound Survey',
      issued: '2019-05-30',
      DOI: '10.5555/dh.77',
    },
  },
  'dataharbour.example/software/tidegauge': {
    vocabularies: ['json-ld'],
    label: {
      type: 'software',
      title: 'tidegauge: Reading old gauge sheets',
      author: 'Menon, Ravi',
      issued: '2021-03-02',
    },
  },
  'shoreconf.example/2018/papers/14': {
    vocabularies: ['highwire'],
    label: {
      type: 'paper-conference',
      title: 'Listening to sluices',
      author: 'Oakes, Tessa; Ng, Tsz Ho',
      issued: '2018-09',
      container: 'Proceedings of the Third Shore Conference',
      page: '55-62',
    },
  },
  'openpreprints.example/abs/2403.01234': {
    vocabularies: ['highwire'],
    label: { type: 'article', title: 'Tides as clocks', author: 'Menon, Ravi', issued: '2024-03-02' },
  },
  'shorewords.example/encyclopedia/tide-mill': {
    vocabularies: ['rdfa'],
    label: {
      type: 'entry-encyclopedia',
      title: 'Tide mill',
      author: 'Lindqvist, Maja',
      issued: '2017-01-20',
      container: 'Encyclopedia of the Shore',
    },
  },
  'filmloft.example/films/last-grind': {
    vocabularies: ['json-ld', 'open-graph'],
    label: { type: 'motion_picture', title: 'The Last Grind', director: 'Ní Bhriain, Aoife', issued: '1974' },
  },
  'soundcast.example/episodes/31': {
    vocabularies: ['json-ld'],
    label: {
      type: 'broadcast',
      title: 'The mill that ran backwards',
      author: 'Raman, Priya',
      issued: '2022-10-04',
      container: 'Soundcast',
    },
  },
  'news.portledger.example/2024/01/09/sluice-vote.html': {
    vocabularies: ['open-graph', 'html'],
    bad: true,
    label: {
      type: 'article-newspaper',
      title: 'Council votes to keep the sluice',
      author: 'Oakes, Tessa',
      issued: '2024-01-09',
      container: 'Port Ledger',
    },
  },
  'northsound.example/reports/ponds-2020': {
    vocabularies: ['highwire'],
    bad: true,
    label: { type: 'report', title: 'The state of the ponds', author: 'Northsound Council', issued: '2020' },
  },
  'repository.northsound.example/handle/1/6001': {
    vocabularies: ['dublin-core'],
    bad: true,
    label: {
      type: 'report',
      title: 'Toll and tide: Leases of the Skerry mill',
      author: 'Barrow, E. M.',
      issued: '1997',
    },
  },
  'openindex.example/records/w4410': {
    vocabularies: ['coins'],
    label: {
      type: 'article-journal',
      title: 'Thirty ponds revisited',
      author: 'Osei, Kofi; Ferreira, Ana',
      issued: '2022',
      container: 'Marsh Letters',
      volume: '4',
      issue: '3',
      page: '201-219',
      ISSN: '2049-3630',
    },
  },
  'smallhydro.example/7/1/2': {
    vocabularies: ['highwire'],
    bad: true,
    label: {
      type: 'article-journal',
      title: 'SMALL WHEELS AND SMALL FALLS',
      author: 'Osei, Kofi; Byrne, Nuala; Menon, Ravi; Oakes, Tessa; Sato, Yuki',
      issued: '2018',
      container: 'Small Hydropower Review',
      volume: '7',
      issue: '1',
      page: '2-19',
    },
  },
  'smallhydro.example/7/1/20': {
    vocabularies: ['highwire'],
    bad: true,
    label: {
      type: 'article-journal',
      title: 'Penstocks without pain',
      author: 'Sato, Yuki',
      issued: '2018',
      container: 'Small Hydropower Review',
      volume: '7',
      issue: '1',
      page: '20-31',
    },
  },
  'maproom.example/sheets/long-sound-1841': {
    vocabularies: ['dublin-core'],
    label: { type: 'map', title: 'Chart of the Long Sound', author: 'Hydrographic Office', issued: '1841' },
  },
  'longsoundwalks.example/posts/backwards': {
    vocabularies: ['html', 'open-graph'],
    bad: true,
    label: {
      type: 'post-weblog',
      title: 'The mill that ran backwards',
      author: 'Osei, Kofi',
      issued: '2022-09-18',
      container: 'Long Sound Walks',
    },
  },
  'kuestenhefte.example/hefte/5/muehlen': {
    vocabularies: ['highwire'],
    bad: true,
    label: {
      type: 'article-journal',
      title: 'Gezeitenmühlen an der Küste',
      author: 'Möller, Jürgen; von der Heide, Anna',
      issued: '2011',
      container: 'Küstenhefte',
      volume: '5',
      page: '9-21',
    },
  },
  'memberslibrary.example/reading/silt': {
    vocabularies: ['highwire'],
    label: {
      type: 'article-journal',
      title: 'Silt and silence',
      author: 'Raman, Priya',
      issued: '2020',
      container: ES,
      volume: '13',
      page: '3-17',
    },
  },
  'repository.northsound.example/handle/1/7000': {
    vocabularies: ['dublin-core'],
    label: { type: 'thesis', title: 'Mud and memory', author: 'Byrne, Nuala', issued: '2018' },
  },
};

export const INVENTED: Labelled[] = Object.entries(LABELS).map(([key, { label, vocabularies, bad }]) => {
  const site = SITES[key];
  return {
    name: key,
    vocabularies,
    ...(bad ? { bad } : {}),
    address: `https://${key}`,
    html: (site?.body ?? PAGES[key]!)(),
    ...(site?.headers?.link ? { linkHeader: site.headers.link } : {}),
    label,
  };
});

/** The invented registry's record of a DOI. */
export const invented = (doi: string) => {
  const known = REGISTERED[doi.toLowerCase()];
  return known && fromCslJson(known.item, 'registry');
};
