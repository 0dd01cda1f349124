import type { Context } from '$lib/server/context';

declare global {
  namespace App {
    interface Error {
      message: string;
      id?: string;
      details?: string[];
    }
    interface Locals {
      ctx: Context;
      /** The project chosen for this browser; nothing when the whole library is. */
      projectId?: string;
    }
  }
}

export {};
