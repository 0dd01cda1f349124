import { untrack } from 'svelte';
import type { Annotation } from '$lib/core/citing';
import type { Finding } from '$lib/core/proof';
import type { Look, Scope, Setting, ShownReference } from '$lib/server/lists';
import { call } from '../frame/client';
import { trouble } from '../frame/toasts.svelte';
import type { Checked } from './preflight';

/** An entry of a printed list. */
export interface ListEntry extends ShownReference, Checked {
  findings: Finding[];
  heading?: string;
  /** What it is called, when it cannot be printed. */
  name?: string;
  annotations?: Annotation[];
}

/** A printed list as a page shows it. */
export interface List {
  entries: ListEntry[];
  hangingIndent: boolean;
  hasList: boolean;
  total: number;
  plain: string;
  rich: string;
}

/** When a list that is being printed is long in coming, in milliseconds. */
const LONG = 2_000;

/** The list that is asked for, printed anew whenever something else is asked. */
export function printedList(asked: () => { scope: Scope; look: Look; setting: Setting }) {
  let list = $state.raw<List | undefined>();
  let printing = $state(false);
  let long = $state(false);
  let last = 0;
  /** This page, by which the server knows that a list is no longer wanted. */
  const view = Math.random().toString(36).slice(2);

  $effect(() => {
    const body = { view, ...asked() };
    const mine = ++last;
    untrack(() => {
      printing = true;
      void call<List>('POST', '/api/references', body)
        .then((answer) => {
          if (mine === last) list = answer;
        })
        .catch((error: unknown) => {
          if (mine === last) trouble(error);
        })
        .finally(() => {
          if (mine === last) printing = false;
        });
    });
  });
  $effect(() => {
    if (!printing) return void (long = false);
    const timer = setTimeout(() => (long = true), LONG);
    return () => clearTimeout(timer);
  });
  return {
    get list() {
      return list;
    },
    get printing() {
      return printing;
    },
    get long() {
      return long;
    },
  };
}
