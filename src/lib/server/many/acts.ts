import type { z } from 'zod';
import type { Context } from '../access/context';
import { respellEach, type One, type Respelling } from '../duplicates';
import { takeBackEach, type Imported } from '../imports';
import type { Look } from '../lists/printing';
import { renameEach, type Renamed } from '../people';
import { decideEach, type decision } from '../proof';
import { binEach, editEach, renewCitekeyOfEach, type EditOfMany, type MadeOf } from '../sources/editing';
import { undoEach } from '../sources/taking-back';
import { changeTagOfEach, type TagChange, type Tagged } from '../tags';

/** What is done with many, one after the other. */
export type Asked =
  | { act: 'edit'; what: EditOfMany }
  | { act: 'bin'; binned: boolean }
  | { act: 'decide'; check: string; decided: z.infer<typeof decision>['act']; look: Look }
  | { act: 'undo' }
  | { act: 'rename'; said: Renamed }
  | { act: 'respell'; said: Respelling }
  | { act: 'tag'; said: TagChange }
  | { act: 'citekeys' }
  | { act: 'import back'; fileName: string };
export type Act = Asked['act'];
export type AskedFor<A extends Act> = Extract<Asked, { act: A }>;

/** Of what it is done: ids of sources, unless it says otherwise. */
export interface Of {
  edit: string;
  bin: string;
  decide: string;
  /** Ids of revisions. */
  undo: string;
  rename: string;
  respell: One['sources'][number];
  tag: Tagged;
  citekeys: string;
  'import back': Imported;
}

/** What came of a part of it, with the labels of what was left as it is, since somebody changed it. */
export interface Came {
  made: MadeOf[];
  left?: string[];
}

const came = async (made: Promise<MadeOf[]>): Promise<Came> => ({ made: await made });

/** How each is done with a part of them, in a transaction that is under way. */
export const DONE_WITH: {
  [A in Act]: (inner: Context, asked: AskedFor<A>, part: Of[A][]) => Promise<Came>;
} = {
  edit: (inner, { what }, ids) => came(editEach(inner, ids, what)),
  bin: (inner, { binned }, ids) => came(binEach(inner, ids, binned)),
  decide: (inner, { check, decided, look }, ids) =>
    came(decideEach(inner, { check, act: decided, ids }, look)),
  undo: (inner, _asked, revisions) => came(undoEach(inner, revisions)),
  rename: (inner, { said }, ids) => came(renameEach(inner, said, ids)),
  respell: (inner, { said }, sources) => came(respellEach(inner, said, sources)),
  tag: (inner, { said }, tagged) => came(changeTagOfEach(inner, said, tagged)),
  citekeys: (inner, _asked, ids) => came(renewCitekeyOfEach(inner, ids)),
  'import back': (inner, _asked, did) => takeBackEach(inner, did),
};
