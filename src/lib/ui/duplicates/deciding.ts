import type { Picks } from '$lib/core/duplicates';
import { call } from '../frame/client';

/** Sources to be made one, and the revisions the choice was made on. */
export interface Merging {
  ids: string[];
  bases: number[];
  picks?: Picks;
}

/** Merges groups in one step; gives the id that undoes it. */
export const mergeGroups = async (groups: Merging[]): Promise<string> =>
  (await call<{ merge: string }>('POST', '/api/merges', { groups })).merge;

/** Undoes what was merged in one step, and says what stays edited. */
export async function undoMerge(id: string): Promise<string> {
  const { edited } = await call<{ edited: string[] }>('POST', `/api/merges/${id}/undo`, {});
  return edited.length === 0
    ? 'The merge is undone. The sources are as they were.'
    : `The merge is undone. What was edited since stays: ${edited.join('; ')}.`;
}
