/** A library with one row of each kind, for requests to name. */
import { expect } from 'vitest';
import { until } from '../browser/app';
import type { Mutated } from './mutate';
import type { Ids } from './routes';
import type { Asked } from './server';

export const PRESET = {
  name: 'News',
  projectId: null,
  sectionId: null,
  type: null,
  asked: [],
  defaults: {},
  tags: [],
  keepPage: true,
  keepPdf: true,
};

/** The id of nothing. */
export const UNKNOWN = '019bd000-0000-7000-8000-00000000ffff';

async function made(app: Asked, path: string, body: unknown): Promise<Record<string, unknown>> {
  const response = await app.json('POST', path, body);
  const text = await response.text();
  expect({ path, status: response.status, text }).toMatchObject({ status: 200 });
  return JSON.parse(text) as Record<string, unknown>;
}

/** Fills an application's library, and gives the ids of what is in it. */
export async function filled(app: Asked): Promise<Ids> {
  const id = async (path: string, body: unknown) => (await made(app, path, body)).id as string;
  const project = await id('/api/projects', { name: 'Tide mills', style: 'apa', locale: 'en-US' });
  const section = await id('/api/sections', { projectId: project, name: 'Ponds' });
  const draft = await id(`/api/projects/${project}/draft`, {});
  const source = await id('/api/sources', { type: 'book', title: 'Sluices' });
  const other = await id('/api/sources', { type: 'book', title: 'Sluices' });
  const note = await id('/api/notes', { body: 'A thought', projectId: null, sourceId: null });
  const { leads } = await made(app, '/api/leads', {
    text: 'Pell, A. (2001). Sluices. Harbour Press.',
    projectId: null,
    metIn: null,
  });
  const preset = await id('/api/presets', PRESET);
  const { jobs } = await made(app, '/api/captures', { text: 'https://marshletters.example/articles/3-1-7' });
  const job = (jobs as { id: string }[])[0]!.id;
  const kept = await until(
    'the page',
    async () => app.rows<{ id: string; text: string }>('SELECT id, text FROM copy')[0],
    120_000,
  );
  const copy = kept.id;
  const selectors = {
    quote: { exact: kept.text.slice(0, 4), prefix: '', suffix: kept.text.slice(4, 20) },
    position: { start: 0, end: 4 },
  };
  const passage = await id('/api/passages', {
    copyId: copy,
    selectors,
    kind: 'quotation',
    gist: '',
    ownWords: '',
    tint: 'claim',
    locator: null,
    visibility: 'library',
  });
  const person = app.rows<{ id: string }>('SELECT id FROM person')[0]!.id;
  const choice = await id('/api/choices', {
    name: 'Which',
    way: 'opinion',
    voters: [person],
    reasons: [],
    ids: [source],
  });
  return {
    person,
    choice,
    project,
    draft,
    section,
    source,
    other,
    note,
    lead: (leads as { id: string }[])[0]!.id,
    preset,
    job,
    copy,
    passage,
    merge: UNKNOWN,
  };
}

/** Sends a request that was made of a sound one. */
export const send = (app: Asked, { method, path, body, type }: Mutated) =>
  app.ask(method, path, {
    ...(body === undefined || method === 'GET' || method === 'HEAD' ? {} : { body: body as BodyInit }),
    headers: type === undefined ? {} : { 'content-type': type },
  });
