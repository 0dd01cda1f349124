import type { Context } from '$lib/server/access/context';

declare global {
  namespace App {
    interface Error {
      message: string;
      id?: string;
      details?: string[];
    }
    interface Locals {
      /** Who asks, with a connection that only reads. */
      ctx: Context;
      /** The same, with the connection that writes: handlers that change declare it. */
      changing: Context;
      /** The project chosen for this browser; nothing when the whole library is. */
      projectId?: string;
    }
  }
}

export {};
