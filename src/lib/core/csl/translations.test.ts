import { expect, it } from 'vitest';
import { citationNodes } from './citations';
import { listNodes } from './bibliography';
import type { Item } from './item';
import { leavesOf, textOfLeaves } from './leaves';
import { openRegistry, setItems } from './registry';
import { compileStyle } from './style';
import { el, text } from './test-style';

/**
 * A translated title stands in brackets behind the title, in roman and without quotation marks: APA Publication Manual, 7th
 * edition, 9.38; The Chicago Manual of Style, 17th edition, 14.99 (both from memory).
 */
const work: Item = {
  id: 'a',
  type: 'article-journal',
  title: 'Gezeitenmühlen',
  'title-short': 'Mühlen',
  'container-title': 'Watt',
  language: 'de',
  custom: {
    translations: [
      { of: 'title', language: 'en', text: 'Tide mills of the <i>north</i>' },
      { of: 'container-title', language: 'en', text: 'Mud flat' },
    ],
  },
};
const quotes = el('terms', {}, el('term', { name: 'open-quote' }, '“'), el('term', { name: 'close-quote' }, '”')); // prettier-ignore
const locale = el('locale', {}, quotes, el('style-options', { 'punctuation-in-quote': 'true' }));

function printed(item: Item, lang: string, translations = true, kind = 'note') {
  const style = el(
    'style',
    { class: kind },
    el('citation', {}, el('layout', {}, text('title', { quotes: 'true' }), text('title', { form: 'short', prefix: ' / ' }))),
    el('bibliography', {}, el('layout', { suffix: '.' }, el('group', { delimiter: ', ' }, text('title', { quotes: 'true', 'text-case': 'title' }), text('container-title', { 'font-style': 'italic', prefix: 'in ' })))),
  ); // prettier-ignore
  const registry = openRegistry(compileStyle(style, lang, [locale], { translations }));
  setItems(registry, [item]);
  const leaves = leavesOf(listNodes(registry)[0]!.nodes, registry.style.locale);
  return {
    list: textOfLeaves(leaves),
    italic: leaves.filter((l) => l.frame?.within?.style === 'italic').map((l) => l.text).join(''),
    note: textOfLeaves(leavesOf(citationNodes(registry, [{ id: 'a' }]), registry.style.locale)),
  }; // prettier-ignore
}

it('a title in the language of the list stands in brackets behind the work’s own, outside its marks', () => {
  expect(printed(work, 'en-US')).toEqual({
    list: '“Gezeitenmühlen” [Tide mills of the north], in Watt [Mud flat].',
    italic: 'northWatt',
    note: '“Gezeitenmühlen” [Tide mills of the north] / Mühlen',
  });
});
it('none stands in a list of another language, or of the work’s own', () => {
  expect(printed(work, 'fr-FR').list).toBe('“Gezeitenmühlen,” in Watt.');
  expect(printed({ ...work, language: 'en' }, 'en-US').list).toBe('“Gezeitenmühlen,” in Watt.');
});
it('none stands where it is not asked for, or in the text', () => {
  expect(printed(work, 'en-US', false).list).toBe('“Gezeitenmühlen,” in Watt.');
  expect(printed(work, 'en-US', true, 'in-text').note).toBe('“Gezeitenmühlen” / Mühlen');
});
