import type { Finding } from '$lib/core/proof';
import type { SignName } from './Sign.svelte';

/** The proofreader's sign set beside a finding. */
export function signOf({ check, pencil }: Pick<Finding, 'check' | 'pencil'>): SignName {
  if (check === 'title-capitals') return 'capitals';
  if (check === 'edition-words' || check.endsWith('-form')) return 'dele';
  if (check.endsWith('-invalid')) return 'cross';
  return pencil === 'red' ? 'caret' : 'question';
}
