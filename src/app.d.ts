import type { Knex } from 'knex';
import type { Context } from '$lib/server/access/context';
import type { Asker } from '$lib/server/accounts';

declare global {
  namespace App {
    interface Error {
      message: string;
      id?: string;
      details?: string[];
    }
    interface Locals {
      /** The connection that writes, for those who ask at the door. */
      db: Knex;
      /** Who asks; nobody, at the door. */
      asker?: Asker;
      /** Who asks, with a connection that only reads. Not there at the door (`routes/open.ts`). */
      ctx: Context;
      /** The same, with the connection that writes: handlers that change declare it. */
      changing: Context;
      /** The project chosen for this browser; nothing when the whole library is. */
      projectId?: string;
    }
  }
}

export {};
