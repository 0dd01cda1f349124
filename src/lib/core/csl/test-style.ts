import { compileStyle, type CompiledStyle } from './style';
import type { Tree } from './tree';

/** For tests: an element of a style. */
export const el = (
  name: string,
  attrs: Record<string, string> = {},
  ...children: (Tree | string)[]
): Tree => ({
  name,
  attrs,
  children,
});

/** For tests: an element that prints a variable. */
export const text = (variable: string, attrs: Record<string, string> = {}) =>
  el('text', { variable, ...attrs });

/** For tests: a style whose list has a layout and attributes, in a language of which some terms are told; `before` stands before its citation. */
export const styleOf = (
  layout: Tree[],
  bibliography: Record<string, string> = {},
  terms: Record<string, string> = {},
  before: Tree[] = [],
): CompiledStyle =>
  compileStyle(
    el(
      'style',
      { class: 'in-text' },
      ...before,
      el('citation', {}, el('layout', {}, text('title'))),
      el('bibliography', bibliography, el('layout', { suffix: '.' }, ...layout)),
    ),
    'en-US',
    [
      el(
        'locale',
        {},
        el('terms', {}, ...Object.entries(terms).map(([name, words]) => el('term', { name }, words))),
      ),
    ],
  );
