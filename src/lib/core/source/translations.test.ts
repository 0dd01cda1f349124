import { expect, it } from 'vitest';
import { sourceRecord } from './schema';
import { translationIn, translationsOf, withTranslations } from './translations';

const record = sourceRecord.parse({
  type: 'book',
  title: 'Gezeitenmühlen',
  language: 'de',
  custom: { shelf: 'A 4' },
});
const english = { of: 'title', language: 'en', text: 'Tide mills' } as const;

it('a record has titles in other languages beside what else it keeps', () => {
  const told = withTranslations(record, [english, { ...english, language: 'fr', text: '' }]);
  expect(told.custom).toEqual({ shelf: 'A 4', translations: [english] });
  expect(translationsOf(told)).toEqual([english]);
  expect(withTranslations(told, []).custom).toEqual({ shelf: 'A 4' });
  expect(withTranslations({ ...told, custom: { translations: [english] } }, [])).not.toHaveProperty('custom');
});
it('the last of a title and a language stands', () => {
  const again = { ...english, language: 'en-GB', text: 'Mills of the tide' };
  expect(translationsOf(withTranslations(record, [english, again]))).toEqual([again]);
});
it('one is told in the language of a list, but not of a work in that language', () => {
  const told = withTranslations(record, [english]);
  expect(translationIn(told, 'title', 'en-US')).toBe('Tide mills');
  expect(translationIn(told, 'container-title', 'en-US')).toBe('');
  expect(translationIn(told, 'title', 'fr-FR')).toBe('');
  expect(translationIn({ ...told, language: 'en-GB' }, 'title', 'en-US')).toBe('');
  expect(translationIn({ ...told, language: 'English' }, 'title', 'en-US')).toBe('');
});
it('what stands in its place in another shape is none', () => {
  expect(translationsOf({ custom: { translations: 'Tide mills' } })).toEqual([]);
  expect(translationsOf({ custom: { translations: [{ of: 'title', language: 'English', text: 'x' }, english] } })).toEqual([english]); // prettier-ignore
});
