import { json } from '@sveltejs/kit';
import { changeVersions, listVersions, readVersion, versionChange } from '$lib/server/drafts';
import { changes, idOf, orRefuse } from '../../../../answer';
import type { RequestHandler } from './$types';

/** The versions of a draft; with `version`, what that one says. */
export const GET: RequestHandler = ({ params, url, locals }) => {
  const version = url.searchParams.get('version')?.slice(0, 60);
  const asked: Promise<unknown> = version
    ? readVersion(locals.ctx, params.id, version).then((parts) => ({ parts }))
    : listVersions(locals.ctx, params.id).then((versions) => ({ versions }));
  return orRefuse(asked).then(json);
};

/** Keeps the draft as it is as a version, calls one otherwise or lets go of it. */
export const POST = changes(versionChange, (said, ctx, event) => changeVersions(ctx, idOf(event), said));
