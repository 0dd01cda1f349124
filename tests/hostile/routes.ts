/** A sound request for every route there is, from which mutated ones are made. */
import { readdirSync, statSync } from 'node:fs';
import { join } from 'node:path';

/** Ids of rows that are there, by what they are. */
export type Ids = Record<
  | 'source'
  | 'other'
  | 'copy'
  | 'passage'
  | 'note'
  | 'lead'
  | 'project'
  | 'draft'
  | 'section'
  | 'preset'
  | 'job'
  | 'merge'
  | 'choice'
  | 'person',
  string
>;

export interface Sound {
  method: string;
  path: string;
  json?: unknown;
  bytes?: Uint8Array;
  type?: string;
}

/** A secret that opens nothing. */
const NO_SECRET = 'x'.repeat(43);
const LOOK = { style: 'apa', locale: 'en-US' };
const preset = (ids: Ids) => ({
  name: 'News',
  projectId: ids.project,
  sectionId: ids.section,
  type: 'article-newspaper',
  asked: ['title', 'author'],
  defaults: { publisher: 'Port Ledger' },
  tags: ['news'],
  keepPage: true,
  keepPdf: false,
});
const bib = new TextEncoder().encode('@book{pell2001, author={Pell, A.}, title={Sluices}, year=2001}');
const post = (path: string, json: unknown, method = 'POST'): Sound => ({ method, path, json });
const get = (path: string): Sound => ({ method: 'GET', path });

/** Sound requests, by the route's folder under `src/routes`. */
export const SOUND: Record<string, (ids: Ids) => Sound[]> = {
  '.': () => [get('/')],
  sources: () => [get('/sources?q=tide&type=book&sort=title&from=1900&to=2020&state=findings&tag=news')],
  'sources/[id]': (i) => [get(`/sources/${i.source}`)],
  intake: (i) => [get(`/intake?at=${i.source}`)],
  passages: (i) => [
    get('/passages?q=tide&kind=quotation&tint=claim&state=lost&tag=a&sort=source&group=tag'),
    get(`/passages?source=${i.source}&section=${i.section}&state=open%20task`),
  ],
  outline: (i) => [
    get('/outline?q=tide&kind=quotation&tint=claim&all=1'),
    get(`/outline?shelf=sources&q=tide&beside=glance&at=${i.section}`),
  ],
  draft: () => [get('/draft'), get('/draft?beside=checks&part=x')],
  notes: () => [get('/notes?q=tide&in=library')],
  leads: (i) => [get(`/leads?q=tide&met=${i.source}`)],
  search: () => [get('/search?q=tide&all=sources&in=library')],
  duplicates: (i) => [get(`/duplicates?with=${i.source}`)],
  'duplicates/sure': () => [get('/duplicates/sure')],
  proof: () => [get('/proof'), get('/proof?check=title-capitals&show=120'), get('/proof?check=issue-asked')],
  styles: () => [
    get('/styles'),
    get('/styles?style=ieee&beside=apa&locale=de-DE'),
    get('/styles?style=none'),
  ],
  tags: () => [get('/tags')],
  'tags/[tag]': () => [get('/tags/news'), get('/tags/none')],
  people: () => [get('/people'), get('/people?of=container&q=mill')],
  'api/people': () => [
    get('/api/people?kind=person&name=Pell'),
    post('/api/people', { kind: 'person', name: 'Pell, M.', to: 'Pell, Margaret' }),
  ],
  'api/people/orcids': () => [post('/api/people/orcids', { name: 'Pell, M.', orcid: '0000-0002-1825-0097' })],
  'api/tags/looks': () => [
    post('/api/tags/looks', { looks: { news: { tint: 'moss', pattern: 'dots', group: 'Kinds' } } }),
  ],
  'api/tags': () => [
    post('/api/tags', { act: 'rename', tag: 'news', to: 'press' }),
    post('/api/tags', { act: 'take off', tag: 'news' }),
  ],
  'api/queries': () => [post('/api/queries', { name: 'Old ones', query: 'tide year:-1950' })],
  'api/queries/[id]': () => [{ method: 'DELETE', path: '/api/queries/none', json: {} }],
  'api/sources/ids': () => [get('/api/sources/ids?q=tide+-dam+year:1990-2005&type=book')],
  'api/proof': (i) => [
    post('/api/proof', { check: 'edition-words', ids: [i.source], act: 'mend' }),
    post('/api/proof', { check: 'title-capitals', ids: [i.source, i.other], act: 'let stand' }),
    post('/api/proof', { check: 'title-capitals', ids: [i.source], act: 'ask again' }),
  ],
  'api/proof/shown': (i) => [post('/api/proof/shown', { check: 'title-capitals', ids: [i.source] })],
  'api/proof/aside': () => [post('/api/proof/aside', { check: 'title-capitals', aside: true })],
  'duplicates/spellings': () => [
    get('/duplicates/spellings'),
    get('/duplicates/spellings?of=containers&with=1'),
  ],
  references: () => [get('/references?style=apa&locale=en-US')],
  import: () => [get('/import')],
  bin: () => [get('/bin')],
  'ways-in': () => [get('/ways-in')],
  capture: (i) => [
    get(`/capture?url=https://a.example/&title=T&preset=${i.preset}&job=${i.job}&shared=x&text=y`),
  ],
  'capture/shared': () => [
    {
      method: 'POST',
      path: '/capture/shared',
      bytes: new TextEncoder().encode(
        '--x\r\ncontent-disposition: form-data; name="text"\r\n\r\nhello\r\n--x--\r\n',
      ),
      type: 'multipart/form-data; boundary=x',
    },
  ],
  'reading.css': () => [get('/reading.css')],
  'copies/[id]': (i) => [get(`/copies/${i.copy}`)],
  'copies/[id]/page': (i) => [get(`/copies/${i.copy}/page?dark=1`)],
  'copies/[id]/file': (i) => [get(`/copies/${i.copy}/file`)],
  'copies/[id]/pictures/[sha]': (i) => [get(`/copies/${i.copy}/pictures/${'a'.repeat(64)}`)],
  'copies/[id]/paper': (i) => [get(`/copies/${i.copy}/paper`)],
  'copies/[id]/cut': (i) => [
    get(
      `/copies/${i.copy}/cut?place=${encodeURIComponent(JSON.stringify({ on: 'leaf', leaf: 1, box: { x: 0.1, y: 0.1, width: 0.5, height: 0.5 } }))}`,
    ),
  ],
  'api/passages/[id]/picture': (i) => [get(`/api/passages/${i.passage}/picture?drawn`)],
  'copies/[id]/contents': (i) => [get(`/copies/${i.copy}/contents`)],
  'copies/[id]/marked': (i) => [get(`/copies/${i.copy}/marked`)],
  'copies/[id]/leaves/[n]/links': (i) => [get(`/copies/${i.copy}/leaves/1/links`)],
  'api/copies/[id]/place': (i) => [post(`/api/copies/${i.copy}/place`, { at: 3, furthest: 40, length: 100 })],
  'api/captures/passage': () => [
    post('/api/captures/passage', {
      address: 'https://marshletters.example/articles/3-1-7',
      selection: 'Salt',
    }),
    get('/api/captures/passage?address=https%3A%2F%2Fmarshletters.example%2Farticles%2F3-1-7'),
  ],
  'api/copies/[id]/recognise': (i) => [
    post(`/api/copies/${i.copy}/recognise`, { languages: ['eng', 'lat'] }),
  ],
  'api/sources/[id]/references': (i) => [get(`/api/sources/${i.source}/references`)],
  'api/copies/[id]/references': (i) => [get(`/api/copies/${i.copy}/references`)],
  'api/copies/[id]/carry': (i) => [post(`/api/copies/${i.copy}/carry`, { to: i.copy })],
  'api/copies/[id]/marks': (i) => [post(`/api/copies/${i.copy}/marks`, {})],
  'api/copies/[id]/annotations': (i) => [
    get(`/api/copies/${i.copy}/annotations`),
    {
      method: 'POST',
      path: `/api/copies/${i.copy}/annotations`,
      bytes: new TextEncoder().encode(
        '[{"type":"Annotation","bodyValue":"x","target":{"source":"y","selector":{"type":"TextQuoteSelector","exact":"Tide"}}}]',
      ),
      type: 'application/octet-stream',
    },
  ],
  'api/tasks': (i) => [
    post('/api/tasks', { text: 'Check it', due: '2026-12-01', sourceId: i.source }),
    post('/api/tasks', { text: 'Check it', passageId: i.passage, visibility: 'private' }),
  ],
  'api/tasks/[id]': (i) => [post(`/api/tasks/${i.note}`, { base: 1, text: 'x', done: true }, 'PATCH')],
  'api/tasks/[id]/bin': (i) => [post(`/api/tasks/${i.note}/bin`, { binned: true })],
  'api/passages/lines': () => [
    {
      method: 'POST',
      path: '/api/passages/lines',
      bytes: Uint8Array.from([0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a]),
      type: 'application/octet-stream',
    },
  ],
  'api/passages/many': (i) => [
    post('/api/passages/many', { act: 'tag', ids: [i.passage], tag: 'a' }),
    post('/api/passages/many', { act: 'untag', ids: [i.passage], tag: 'a' }),
    post('/api/passages/many', { act: 'place', ids: [i.passage], sectionId: i.section }),
    post('/api/passages/many', { act: 'unplace', ids: [i.passage], sectionId: i.section }),
    post('/api/passages/many', { act: 'bin', ids: [i.passage] }),
  ],
  'api/passages/out': (i) => [
    post('/api/passages/out', { ids: [i.passage], as: 'markdown', layout: 'below', title: 'T' }),
    post('/api/passages/out', { ids: [i.passage], as: 'docx' }),
  ],
  'api/passages/copied': (i) => [post('/api/passages/copied', { ids: [i.passage], layout: 'beside' })],
  'api/passages/[id]/replies': (i) => [
    post(`/api/passages/${i.passage}/replies`, { text: 'Is this so?', to: [] }),
  ],
  'api/passages/[id]/settled': (i) => [post(`/api/passages/${i.passage}/settled`, { settled: true })],
  'api/replies/[id]': (i) => [
    post(`/api/replies/${i.note}`, { text: 'Otherwise' }, 'PATCH'),
    post(`/api/replies/${i.note}`, { gone: true }, 'PATCH'),
  ],
  'api/replies/seen': (i) => [post('/api/replies/seen', { ids: [i.note] })],
  'api/passages/[id]/links': (i) => [
    post(`/api/passages/${i.passage}/links`, { to: i.passage, kind: 'supports' }),
    post(`/api/passages/${i.passage}/links`, { to: i.passage, kind: null }),
  ],
  'copies/[id]/leaves/[n]': (i) => [get(`/copies/${i.copy}/leaves/1`)],
  'api/bin': (i) => [post('/api/bin', { note: [i.merge] }, 'DELETE')],
  'api/captures': (i) => [
    post('/api/captures', {
      text: 'https://nowhere.invalid/',
      projectId: i.project,
      tags: ['a'],
      note: 'n',
      presetId: i.preset,
      leadId: i.lead,
    }),
  ],
  'api/captures/file': (i) => [
    {
      method: 'POST',
      path: `/api/captures/file?name=a.bib&into=${encodeURIComponent(JSON.stringify({ projectId: i.project }))}`,
      bytes: bib,
      type: 'application/octet-stream',
    },
  ],
  'api/captures/page': (i) => [
    post('/api/captures/page', {
      html: '<p>Tide</p>',
      address: 'https://a.example/p',
      title: 'T',
      selection: 'Tide',
      projectId: i.project,
    }),
  ],
  '(door)/sign-in': () => [get('/sign-in?to=%2Fsources')],
  '(door)/set-up': () => [get('/set-up')],
  '(door)/invited/[secret]': () => [get(`/invited/${NO_SECRET}`)],
  '(door)/way-back/[secret]': () => [get(`/way-back/${NO_SECRET}`)],
  // Of accounts none is made: every later request would have to sign in.
  'api/door/sign-in': () => [post('/api/door/sign-in', { mail: 'a@harbour.example', phrase: 'x', code: '' })],
  'api/door/set-up': () => [
    post('/api/door/set-up', { name: 'A', mail: 'nowhere', phrase: 'x', secret: '' }),
  ],
  'api/door/invited': () => [
    post('/api/door/invited', {
      secret: NO_SECRET,
      account: { name: 'A', mail: 'a@harbour.example', phrase: 'x' },
    }),
  ],
  'api/door/way-back': () => [post('/api/door/way-back', { secret: NO_SECRET, phrase: 'x' })],
  'read/[secret]': () => [get(`/read/${NO_SECRET}`), get(`/read/${NO_SECRET}?as=ris`)],
  'read/[secret]/documents/[id]': (i) => [get(`/read/${NO_SECRET}/documents/${i.copy}`)],
  choices: () => [get('/choices')],
  'choices/[id]': (i) => [get(`/choices/${i.choice}`), get(`/choices/${i.choice}?see=outcome`)],
  'api/choices': (i) => [
    get('/api/choices'),
    post('/api/choices', {
      name: 'Which', way: 'opinion', voters: [i.person], reasons: ['thin'], ids: [i.source, i.other],
    }), // prettier-ignore
  ],
  'api/choices/[id]': (i) => [
    post(`/api/choices/${i.choice}`, { act: 'rename', name: 'Which ones' }),
    post(`/api/choices/${i.choice}`, { act: 'add', ids: [i.other] }),
    post(`/api/choices/${i.choice}`, { act: 'take out', ids: [i.other] }),
    post(`/api/choices/${i.choice}`, { act: 'close', closed: false }),
    { method: 'DELETE', path: `/api/choices/${i.choice}`, json: {} },
  ],
  'api/choices/[id]/votes': (i) => [
    post(`/api/choices/${i.choice}/votes`, { id: i.source, says: 'keep', reason: 'good' }),
    post(`/api/choices/${i.choice}/votes`, { order: [i.source] }),
  ],
  'api/choices/[id]/shown': (i) => [post(`/api/choices/${i.choice}/shown`, { id: i.source })],
  '(door)/away': () => [get('/away?to=%2Fsources')],
  '(door)/forgotten': () => [get('/forgotten')],
  'api/door/forgotten': () => [post('/api/door/forgotten', { mail: 'nobody@harbour.example' })],
  'api/door/passkey': () => [
    post('/api/door/passkey', { act: 'ask' }),
    post('/api/door/passkey', { act: 'sign in', offer: NO_SECRET, answer: { id: 'x' } }),
  ],
  'api/account/passkeys': () => [
    post('/api/account/passkeys', { act: 'begin', phrase: 'not it at all' }),
    post('/api/account/passkeys', {
      act: 'confirm',
      offer: NO_SECRET,
      answer: { id: 'x' },
      name: 'A device',
    }),
    post('/api/account/passkeys', { act: 'drop', id: 'x' }),
  ],
  'api/here': (i) => [post('/api/here', { page: 'one', source: i.source })],
  members: () => [get('/members')],
  'api/crossings': (i) => [
    post('/api/crossings', { ids: [i.source], libraryId: i.note, move: false }),
    post('/api/crossings', { libraryId: i.note, ids: [i.source], moved: [] }, 'DELETE'),
  ],
  backup: () => [get('/backup')],
  health: () => [get('/health')],
  metrics: () => [get('/metrics')],
  'api/backups': () => [get('/api/backups')],
  'api/backups/[name]': () => [
    get('/api/backups/retexa-2026-01-01T00-00-00Z.tar'),
    get('/api/backups/..%2Fretexa.sqlite'),
  ],
  'api/backups/opened': () => [
    post('/api/backups/opened', { name: 'retexa-2026-01-01T00-00-00Z.tar' }),
    post('/api/backups/opened', {}, 'DELETE'),
  ],
  'api/backups/opened/[id]': (i) => [post(`/api/backups/opened/${i.other}`, {})],
  'api/backups/opened/file': () => [
    {
      method: 'POST',
      path: '/api/backups/opened/file?name=a.tar',
      bytes: Buffer.from('no archive'),
      type: 'application/octet-stream',
    },
  ],
  account: () => [get('/account')],
  'api/account': () => [
    post('/api/account', { name: 'A', mail: 'a@harbour.example', phrase: 'x' }, 'PATCH'),
    post('/api/account', { phrase: 'x', next: 'y' }, 'PATCH'),
    post('/api/account', { session: 'others' }, 'DELETE'),
  ],
  'api/account/closing': () => [get('/api/account/closing'), post('/api/account/closing', { phrase: 'x' })],
  'api/account/codes': () => [
    post('/api/account/codes', { act: 'begin', phrase: 'x' }),
    post('/api/account/codes', { act: 'confirm', code: '000000' }),
    post('/api/account/codes', { act: 'drop', phrase: 'x' }),
  ],
  'api/account/tokens': () => [
    post('/api/account/tokens', { name: 'companion', may: 'capture', days: 30 }),
    post('/api/account/tokens', { id: 'none' }, 'DELETE'),
  ],
  'api/members': () => [post('/api/members', { mail: 'nobody@harbour.example', role: 'reader' })],
  'api/members/[id]': (i) => [
    post(`/api/members/${i.note}`, { role: 'reader' }, 'PATCH'),
    post(`/api/members/${i.note}`, {}, 'DELETE'),
  ],
  'api/members/[id]/way-back': (i) => [post(`/api/members/${i.note}/way-back`, {})],
  'api/members/mine': () => [get('/api/members/mine')],
  'api/invitations': () => [post('/api/invitations', { role: 'reader', name: 'B', days: 7 })],
  'api/invitations/[id]': (i) => [post(`/api/invitations/${i.note}`, {}, 'DELETE')],
  'api/libraries': () => [
    post('/api/libraries', { name: 'Group' }),
    post('/api/libraries', { name: 'Mine' }, 'PATCH'),
    post('/api/libraries', { name: 'Not what it is called' }, 'DELETE'),
  ],
  'api/shares': (i) => [
    post('/api/shares', {
      of: { what: 'project', projectId: i.project },
      name: 'For my supervisor',
      documents: true,
      passages: true,
      days: 30,
      look: LOOK,
    }),
    post('/api/shares', {
      of: { what: 'list', ids: [i.source] },
      name: 'A list',
      documents: false,
      passages: false,
      days: null,
      look: LOOK,
    }),
    post('/api/shares', {
      of: { what: 'section', sectionId: i.section },
      name: 'Ponds',
      documents: false,
      passages: true,
      days: 1,
      look: LOOK,
    }),
  ],
  'api/shares/[id]': (i) => [post(`/api/shares/${i.note}`, {}, 'DELETE')],
  'api/cited': () => [post('/api/cited', { text: '\\cite{pell2001} and [@pell2001]' })],
  'api/citations': (i) => [
    post('/api/citations', {
      works: [
        { id: i.source, label: 'page', locator: '3', prefix: 'see', suffix: 'there', withoutAuthor: false },
      ],
      named: false,
    }),
  ],
  'api/citekeys': (i) => [
    get('/api/citekeys'),
    post('/api/citekeys', { pattern: { parts: ['author', 'year'], between: '' }, ids: [i.source] }),
    post('/api/citekeys', { pattern: { parts: ['author', 'year'], between: '' } }, 'PATCH'),
  ],
  'api/copies/[id]/renew': (i) => [post(`/api/copies/${i.copy}/renew`, {})],
  'api/duplicates/merged': (i) => [
    post('/api/duplicates/merged', { ids: [i.source, i.other], picks: { title: 1, volume: { value: '2' } } }),
  ],
  'api/spellings': (i) => [
    post('/api/spellings', {
      act: 'one',
      kind: 'person',
      key: 'person ferreira a',
      forms: ['[["family","Ferreira"],["given","Ana"]]'],
      to: { typed: 'Ferreira, A.' },
      sources: [{ id: i.source, revision: 1 }],
    }),
    post('/api/spellings', {
      act: 'one',
      kind: 'container',
      key: 'container ml',
      forms: ['Marsh Letters'],
      to: { form: 'Marsh Lett.' },
      sources: [{ id: i.source, revision: 1 }],
    }),
    post('/api/spellings', {
      act: 'apart',
      key: 'container ml',
      form: 'Marsh Letters',
      others: ['Marsh Lett.'],
    }),
    post('/api/spellings', {
      act: 'not-apart',
      key: 'container ml',
      form: 'Marsh Letters',
      others: ['Marsh Lett.'],
    }),
  ],
  'api/duplicates/known': () => [
    post('/api/duplicates/known', {
      type: 'book',
      title: 'The salt marsh of the north',
      ISBN: '9780306406157',
    }),
  ],
  'api/duplicates/pass': () => [post('/api/duplicates/pass', {})],
  'api/duplicates': (i) => [
    post('/api/duplicates', { act: 'apart', id: i.source, others: [i.other] }),
    post('/api/duplicates', { act: 'not-apart', id: i.source, others: [i.other] }),
    post('/api/duplicates', { act: 'relate', id: i.source, others: [i.other], kind: 'edition' }),
    post('/api/duplicates', { act: 'unrelate', id: i.source, others: [i.other] }),
    post('/api/duplicates', { act: 'relate-again', id: i.source, others: [i.other] }),
  ],
  'api/events': () => [],
  'api/export': (i) => [
    post('/api/export', {
      scope: { kind: 'selection', ids: [i.source] },
      look: LOOK,
      output: 'bibtex',
      setting: { heading: 'H', group: 'kind', annotate: [] },
    }),
  ],
  'api/import': () => [
    { method: 'POST', path: '/api/import?name=a.bib&intake=1', bytes: bib, type: 'application/octet-stream' },
  ],
  'api/into': () => [get('/api/into')],
  'api/jobs/[id]': (i) => [
    get(`/api/jobs/${i.job}`),
    post(`/api/jobs/${i.job}`, { act: 'retry' }),
    post(`/api/jobs/${i.job}`, { act: 'take-away' }),
    post(`/api/jobs/${i.job}`, { act: 'add-copy', sourceId: i.source }),
    post(`/api/jobs/${i.job}`, { act: 'decide', answers: { 0: 'skip' } }),
    post(`/api/jobs/${i.job}`, { act: 'choose', picks: [0] }),
  ],
  'api/known': () => [get('/api/known?field=people&q=pell'), get('/api/known?field=container-title&q=tide')],
  'api/leads': (i) => [
    post('/api/leads', {
      text: 'Pell, A. (2001). Sluices. Harbour Press.',
      projectId: i.project,
      metIn: i.source,
    }),
  ],
  'api/leads/bin': (i) => [post('/api/leads/bin', { ids: [i.lead] })],
  'api/leads/[id]': (i) => [
    post(`/api/leads/${i.lead}`, { act: 'tick', sourceId: i.source }),
    post(`/api/leads/${i.lead}`, { act: 'met-in', sourceId: i.source }),
  ],
  'api/leads/[id]/by-hand': (i) => [post(`/api/leads/${i.lead}/by-hand`, {})],
  'api/leads/[id]/offers': (i) => [post(`/api/leads/${i.lead}/offers`, {})],
  'api/merges': (i) => [
    post('/api/merges', { groups: [{ ids: [i.source, i.other], bases: [99, 99], picks: {} }] }),
  ],
  'api/merges/[id]/undo': (i) => [post(`/api/merges/${i.merge}/undo`, {})],
  'api/notes': (i) => [
    post('/api/notes', { body: 'A thought', projectId: i.project, sourceId: i.source }),
    post('/api/notes', {
      content: [
        {
          type: 'paragraph',
          content: [{ type: 'named', attrs: { kind: 'source', id: i.source, label: 'x' } }],
        },
      ],
      projectId: null,
      sourceId: null,
    }),
  ],
  'api/notes/named': () => [post('/api/notes/named', { words: 'marsh' })],
  'api/notes/spoken': (i) => [
    {
      method: 'POST',
      path: `/api/notes/spoken?seconds=3&said=${encodeURIComponent(JSON.stringify({ body: 'b', projectId: i.project, sourceId: null }))}`,
      bytes: Uint8Array.from([0x4f, 0x67, 0x67, 0x53, 0, 2]),
      type: 'audio/ogg',
    },
  ],
  'api/manuscripts': () => [
    {
      method: 'POST',
      path: '/api/manuscripts?name=a.md',
      bytes: new TextEncoder().encode('So it is [@nobody, p. 3].'),
      type: 'application/octet-stream',
    },
  ],
  'api/notes/words': () => [
    {
      method: 'POST',
      path: '/api/notes/words',
      bytes: Uint8Array.from([0x4f, 0x67, 0x67, 0x53, 0, 2]),
      type: 'audio/ogg',
    },
  ],
  'api/notes/[id]': (i) => [
    post(`/api/notes/${i.note}`, { base: 1, change: { body: 'Other', projectId: i.project } }, 'PATCH'),
  ],
  'api/notes/[id]/audio': (i) => [get(`/api/notes/${i.note}/audio`)],
  'api/notes/[id]/bin': (i) => [post(`/api/notes/${i.note}/bin`, { binned: false })],
  'api/passages': (i) => [
    post('/api/passages', {
      copyId: i.copy,
      selectors: { quote: { exact: 'Salt', prefix: '', suffix: '' }, position: { start: 0, end: 4 } },
      kind: 'quotation',
      gist: 'g',
      ownWords: 'o',
      tint: 'claim',
      locator: { label: 'page', value: '3' },
      visibility: 'library',
    }),
    post('/api/passages', {
      copyId: null,
      sourceId: i.source,
      selectors: null,
      exact: 'Read in print',
      wording: '[R]ead in print',
      tags: ['a'],
      kind: 'response',
      gist: '',
      ownWords: '',
      tint: 'doubt',
      locator: null,
      visibility: 'private',
    }),
    post('/api/passages', {
      copyId: i.copy,
      selectors: null,
      exact: 'Caption',
      kind: 'figure',
      gist: '',
      ownWords: '',
      tint: 'claim',
      locator: null,
      visibility: 'library',
      figure: {
        place: { on: 'leaf', leaf: 1, box: { x: 0, y: 0, width: 0.5, height: 0.5 } },
        number: 'Figure 1',
        alt: 'A mill',
        drawing: [
          { id: 'a', tint: 'doubt', shape: 'arrow', from: [0, 0], to: [1, 1] },
          { id: 'b', tint: 'term', shape: 'words', at: [0.5, 0.5], text: 'gate' },
          {
            id: 'c',
            tint: 'claim',
            shape: 'stroke',
            points: [
              [0, 0],
              [1, 1],
            ],
          },
        ],
      },
    }),
  ],
  'api/passages/[id]': (i) => [
    post(
      `/api/passages/${i.passage}`,
      {
        base: 1,
        said: {
          kind: 'quotation',
          gist: 'g',
          ownWords: 'o',
          tint: 'claim',
          locator: null,
          visibility: 'library',
        },
      },
      'PATCH',
    ),
  ],
  'api/passages/[id]/bin': (i) => [post(`/api/passages/${i.passage}/bin`, { binned: false })],
  'api/presets': (i) => [post('/api/presets', preset(i))],
  'api/presets/example': (i) => [post('/api/presets/example', preset(i))],
  'api/presets/[id]': (i) => [post(`/api/presets/${i.preset}`, preset(i))],
  'api/printed': (i) => [post('/api/printed', { ids: [i.source], look: LOOK })],
  'api/projects': () => [post('/api/projects', { name: 'P', ...LOOK })],
  'api/projects/[id]': (i) => [
    post(`/api/projects/${i.project}`, { name: 'P', ...LOOK }, 'PATCH'),
    post(`/api/projects/${i.project}`, { putAway: true }),
    post(`/api/projects/${i.project}`, { binned: false }),
  ],
  'api/projects/[id]/outline': (i) => [
    post(`/api/projects/${i.project}/outline`, {
      changes: [
        { act: 'put', items: [{ ref: i.source, kind: 'source' }], sectionId: i.section, before: null },
        {
          act: 'put',
          items: [{ ref: 'x', kind: 'sentence', words: 'Mills.' }],
          sectionId: i.section,
          before: null,
        },
        { act: 'move', items: [{ sectionId: i.section, ref: i.source }], sectionId: i.section, before: null },
        { act: 'take out', items: [{ sectionId: i.section, ref: i.source }] },
        {
          act: 'restore',
          put: [{ sectionId: i.section, ref: i.passage, kind: 'passage', after: null }],
          out: [{ sectionId: i.section, ref: i.source }],
        },
      ],
      unfile: [i.source],
    }),
    post(`/api/projects/${i.project}/outline`, {
      changes: [
        {
          act: 'write',
          item: { sectionId: i.section, ref: 'x' },
          kind: 'question',
          words: 'Why?',
          was: 'Mills.',
        },
      ],
    }),
  ],
  'api/projects/[id]/draft': (i) => [post(`/api/projects/${i.project}/draft`, {})],
  'api/drafts/[id]': (i) => [
    get(`/api/drafts/${i.draft}?since=0`),
    post(`/api/drafts/${i.draft}`, {
      since: 0,
      page: 'one',
      puts: [
        {
          id: `h-${i.draft}`,
          base: null,
          content: {
            type: 'paragraph',
            content: [
              {
                type: 'text',
                text: 'Mills',
                marks: [{ type: 'passage', attrs: { id: i.passage, as: 'quotation' } }],
              },
              {
                type: 'cite',
                attrs: {
                  id: 'c',
                  works: [{ id: i.source, label: 'page', locator: '7', prefix: 'see' }],
                  named: true,
                },
              },
              { type: 'formula', attrs: { tex: 'h' } },
            ],
          },
        },
      ],
      gone: [{ id: 'x', base: 1 }],
      order: [`h-${i.draft}`],
    }),
  ],
  'api/drafts/[id]/borrowed': (i) => [
    get(`/api/drafts/${i.draft}/borrowed`),
    post(`/api/drafts/${i.draft}/borrowed`, {}),
  ],
  'api/drafts/[id]/checks': (i) => [get(`/api/drafts/${i.draft}/checks`)],
  'api/drafts/[id]/listed': (i) => [
    post(`/api/drafts/${i.draft}/listed`, { add: [i.source], drop: [i.other] }),
  ],
  'api/drafts/[id]/template': (i) => [
    {
      method: 'POST',
      path: `/api/drafts/${i.draft}/template`,
      bytes: Uint8Array.from([0x50, 0x4b, 5, 6]),
      type: 'application/octet-stream',
    },
    post(`/api/drafts/${i.draft}/template`, {}, 'DELETE'),
  ],
  'api/drafts/[id]/pictures': (i) => [
    {
      method: 'POST',
      path: `/api/drafts/${i.draft}/pictures`,
      bytes: Uint8Array.from([0x89, 0x50, 0x4e, 0x47, 13, 10]),
      type: 'application/octet-stream',
    },
  ],
  'api/drafts/[id]/pictures/[sha]': (i) => [get(`/api/drafts/${i.draft}/pictures/${'0'.repeat(64)}`)],
  'api/drafts/[id]/print': (i) => [get(`/api/drafts/${i.draft}/print`)],
  'api/drafts/[id]/out': (i) => [
    post(`/api/drafts/${i.draft}/out`, { as: 'markdown', citing: 'keys' }),
    post(`/api/drafts/${i.draft}/out`, { as: 'docx' }),
    post(`/api/drafts/${i.draft}/out`, { as: 'odt', citing: 'keys' }),
  ],
  'api/drafts/[id]/versions': (i) => [
    get(`/api/drafts/${i.draft}/versions?version=x`),
    post(`/api/drafts/${i.draft}/versions`, { act: 'keep', name: 'Half' }),
  ],
  'api/drafts/find': (i) => [post('/api/drafts/find', { words: 'see mill', projectId: i.project })],
  'api/drafts/material': (i) => [post('/api/drafts/material', { passages: [i.passage] })],
  'api/drafts/works': (i) => [post('/api/drafts/works', { ids: [i.source, i.other] })],
  'api/styles/sent': () => [get('/api/styles/sent?style=apa&locale=en-US')],
  'api/projects/[id]/outline/in': (i) => [
    post(`/api/projects/${i.project}/outline/in`, { name: 'a.md', text: '# A\n\nSaid.' }),
    post(`/api/projects/${i.project}/outline/in`, { away: [i.section] }),
  ],
  'api/projects/[id]/outline/out': (i) => [
    post(`/api/projects/${i.project}/outline/out`, { as: 'opml', quotations: false }),
    post(`/api/projects/${i.project}/outline/out`, { as: 'docx' }),
  ],
  'api/references': (i) => [
    post('/api/references', {
      view: 'v',
      scope: { kind: 'library' },
      look: LOOK,
      setting: { group: 'section' },
    }),
    post('/api/references', { view: 'v', scope: { kind: 'section', sectionId: i.section }, look: LOOK }),
    post('/api/references', {
      view: 'v',
      scope: { kind: 'tag', tag: 'news', projectId: i.project },
      look: LOOK,
    }),
  ],
  'api/references/told': (i) => [
    post('/api/references/told', { scope: { kind: 'library' }, look: LOOK }),
    post('/api/references/told', { scope: { kind: 'project', projectId: i.project }, look: LOOK }),
  ],
  'api/sample': () => [post('/api/sample', {})],
  'api/scope': (i) => [post('/api/scope', { projectId: i.project })],
  'api/sections': (i) => [
    post('/api/sections', { projectId: i.project, name: 'Ponds' }),
    post('/api/sections', { projectId: i.project, name: 'Ponds', parentId: null }),
  ],
  'api/sections/[id]': (i) => [
    post(`/api/sections/${i.section}`, { act: 'rename', name: 'Pools' }),
    post(`/api/sections/${i.section}`, { act: 'move', parentId: null, before: null }),
    post(`/api/sections/${i.section}`, { act: 'split', at: i.source, name: 'Second' }),
    post(`/api/sections/${i.section}`, { act: 'take in', section: i.section }),
    post(`/api/sections/${i.section}`, { act: 'give back', section: i.section, changes: [], children: [] }),
    post(`/api/sections/${i.section}`, { act: 'bin' }),
    post(`/api/sections/${i.section}`, { act: 'bring back' }),
  ],
  'api/sections/[id]/sources': (i) => [
    post(`/api/sections/${i.section}/sources`, { act: 'place', ids: [i.source], before: null }),
    post(`/api/sections/${i.section}/sources`, { act: 'order', ids: [i.source], before: null }),
    post(`/api/sections/${i.section}/sources`, { act: 'set order', ids: [i.source] }),
    post(`/api/sections/${i.section}/sources`, { act: 'take out', ids: [i.source], unfile: [i.source] }),
  ],
  'api/reading': (i) => [
    post('/api/reading', { ids: [i.source], state: 'reading', priority: 'high' }),
    post('/api/reading', { each: [{ id: i.source, state: null, priority: null }] }),
  ],
  'api/facets': () => [get('/api/facets?q=tide+person:Pell&section=none')],
  'api/sources/changing': (i) => [
    post('/api/sources/changing', {
      ids: [i.source],
      change: { act: 'replace', field: 'title', find: 'tide', by: 'Tide', exact: true },
    }),
  ],
  'api/sources/lines': (i) => [
    post('/api/sources/lines', { ids: [i.source], what: 'addresses' }),
    post('/api/sources/lines', { ids: [i.source], what: 'titles with notes' }),
  ],
  'api/sources': (i) => [
    get('/api/sources?offset=0&q=tide&sort=year&from=1900&type=book'),
    post('/api/sources', {
      type: 'book',
      title: 'T',
      URL: 'https://a.example/',
      DOI: '10.5555/x',
      ISBN: '978-1-86197-271-2',
      PMID: '1',
      into: { projectId: i.project },
    }),
  ],
  'api/sources/bin': (i) => [post('/api/sources/bin', { ids: [i.other], binned: false })],
  'api/sources/edit': (i) => [
    post('/api/sources/edit', { ids: [i.source], tag: 'x' }),
    post('/api/sources/edit', { ids: [i.source], fix: true }),
    post('/api/sources/edit', { ids: [i.source], checked: true }),
    post('/api/sources/edit', {
      ids: [i.source],
      change: { act: 'set', field: 'publisher', value: 'P' },
    }),
  ],
  'api/sources/file': (i) => [
    post('/api/sources/file', { ids: [i.source], projectId: i.project, filed: true }),
  ],
  'api/sources/[id]': (i) => [
    post(
      `/api/sources/${i.source}`,
      {
        base: 1,
        fields: {
          title: 'Other',
          author: [{ family: 'Pell', given: 'A.' }],
          issued: { 'date-parts': [[2001, 2]] },
          volume: '3',
        },
        tags: ['a'],
        citekey: 'k',
        why: 'w',
      },
      'PATCH',
    ),
  ],
  'api/sources/[id]/check': (i) => [post(`/api/sources/${i.source}/check`, { base: 1, checked: true })],
  'api/sources/[id]/preview': (i) => [
    post(`/api/sources/${i.source}/preview`, {
      fields: { title: 'Other', issued: { 'date-parts': [[2001]] } },
    }),
  ],
  'api/sources/[id]/copies': (i) => [
    {
      method: 'POST',
      path: `/api/sources/${i.source}/copies?name=a.pdf`,
      bytes: new TextEncoder().encode('%PDF-1.4'),
      type: 'application/octet-stream',
    },
  ],
  'api/sources/[id]/restore': (i) => [
    post(`/api/sources/${i.source}/restore`, { number: 1 }),
    post(`/api/sources/${i.source}/restore`, { number: 1, field: 'title' }),
  ],
  'api/styles': () => [
    get('/api/styles?q=apa&format=numeric&field=history'),
    post('/api/styles', { style: 'apa', favourite: true }, 'PATCH'),
    {
      method: 'POST',
      path: '/api/styles?name=own.csl',
      bytes: new TextEncoder().encode('<style/>'),
      type: 'application/octet-stream',
    },
  ],
  'api/undo': () => [post('/api/undo', { revisions: ['019bd000-0000-7000-8000-000000000000'] })],
};

/** Every route in the tree: its folder under `src/routes`. */
export function routesThereAre(folder = 'src/routes', under = '.'): string[] {
  const names = readdirSync(folder);
  const here = names.some((n) => /^\+(?:server|page)\b/.test(n)) ? [under] : [];
  return [
    ...here,
    ...names
      .filter((n) => statSync(join(folder, n)).isDirectory())
      .flatMap((n) => routesThereAre(join(folder, n), under === '.' ? n : `${under}/${n}`)),
  ];
}
