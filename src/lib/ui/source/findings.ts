import type { Finding } from '$lib/core/proof';
import type { SignName } from './Sign.svelte';

/** The proofreader's sign set beside a finding. */
export function signOf({ check, pencil }: Pick<Finding, 'check' | 'pencil'>): SignName {
  const base = check.split(':')[0]!;
  if (/capitals$|^title-case$|^title-colon$/.test(base)) return 'capitals';
  if (TOO_MUCH.has(base) || base.endsWith('-form')) return 'dele';
  if (base.endsWith('-invalid') || base === 'retracted') return 'cross';
  if (/-twice$|^editor-and-author$|^version-of-record$|^spelled-otherwise$/.test(base)) return 'twice';
  return pencil === 'red' ? 'caret' : 'question';
}

/** What is too much in a value, and is struck out. */
const TOO_MUCH = new Set([
  'edition-words',
  'edition-first',
  'title-stop',
  'title-quoted',
  'title-site',
  'title-spaces',
  'markup',
  'name-by',
  'name-degree',
  'name-etal',
  'number-words',
  'placeholder',
  'nobody',
  'date-none',
  'address-visit',
  'doi-resolver',
]);
