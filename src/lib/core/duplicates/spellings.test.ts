import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { parseName, sourceRecord, type CslName } from '../source';
import {
  formOfName,
  nameOfForm,
  pairOfForms,
  proposeSpellings,
  respelled,
  spellingsOf,
  textOfForm,
} from './spellings';

const record = (given: object) => sourceRecord.parse({ type: 'article-journal', ...given });
const form = (name: string | CslName) => formOfName(typeof name === 'string' ? parseName(name)! : name);
/** What is proposed for names that stand in one library, by their keys; each group as it is shown, the fullest first. */
function proposed(kind: 'person' | 'container', names: (string | CslName)[], issn?: string) {
  const forms = new Map<string, string[]>();
  for (const name of names) {
    const given =
      kind === 'person'
        ? { author: [typeof name === 'string' ? parseName(name)! : name] }
        : { 'container-title': name, ...(issn ? { ISSN: issn } : {}) };
    for (const s of spellingsOf(record(given))) forms.set(s.key, [...(forms.get(s.key) ?? []), s.form]);
  }
  return [...forms].flatMap(([key, some]) =>
    proposeSpellings(key, [...new Set(some)]).map((p) => ({
      names: p.forms.map((f) => textOfForm(kind, f)),
      differences: p.differences,
      sure: p.sure,
    })),
  );
}

describe('people in several spellings', () => {
  it.each<[string, (string | CslName)[], string[], string[]]>([
    ['an accent', ['Muller, Anna', 'Müller, Anna'], ['Müller, Anna', 'Muller, Anna'], ['marks']],
    ['ü as ue', ['Mueller, Anna', 'Müller, Anna'], ['Müller, Anna', 'Mueller, Anna'], ['marks']],
    ['capitals', ['FERREIRA, ANA', 'Ferreira, Ana'], ['Ferreira, Ana', 'FERREIRA, ANA'], ['marks']],
    [
      'initials',
      ['Okafor, C. N.', 'Okafor, Chidi Nnamdi'],
      ['Okafor, Chidi Nnamdi', 'Okafor, C. N.'],
      ['initials'],
    ],
    ['initials without blanks', ['Okafor, CN', 'Okafor, C. N.'], ['Okafor, C. N.', 'Okafor, CN'], ['marks']],
    [
      'a hyphen',
      ['Sartori, Jean-Luc', 'Sartori, J.-L.'],
      ['Sartori, Jean-Luc', 'Sartori, J.-L.'],
      ['initials'],
    ],
    [
      'one given name of two',
      ['Okafor, Chidi', 'Okafor, Chidi N.'],
      ['Okafor, Chidi N.', 'Okafor, Chidi'],
      ['fewer'],
    ],
    [
      'a shortened given name',
      ['Weiß, Chr.', 'Weiss, Christian'],
      ['Weiss, Christian', 'Weiß, Chr.'],
      ['initials'],
    ],
    [
      'particles in another field',
      [
        { family: 'van der Zee', given: 'Mieke' },
        { 'non-dropping-particle': 'van der', family: 'Zee', given: 'Mieke' },
      ],
      ['van der Zee, Mieke', 'van der Zee, Mieke'],
      ['marks'],
    ],
    [
      'no particle',
      ['von Humboldt, Alexander', 'Humboldt, Alexander'],
      ['von Humboldt, Alexander', 'Humboldt, Alexander'],
      ['particle'],
    ],
    [
      'one string',
      [{ literal: 'Ana Ferreira' }, { family: 'Ferreira', given: 'Ana' }],
      ['Ferreira, Ana', 'Ana Ferreira'],
      ['parts'],
    ],
    [
      'an institution abbreviated',
      [{ literal: 'Univ. of Coimbra' }, { literal: 'University of Coimbra' }],
      ['University of Coimbra'],
      [],
    ],
  ])('%s', (what, names, expected, differences) => {
    const [first, more] = proposed('person', names);
    expect(more).toBeUndefined();
    if (what === 'an institution abbreviated') {
      // `Univ.` alone does not read as an institution's name; said so, it is compared by its words.
      expect(first).toBeUndefined();
      const key = spellingsOf(record({ author: [names[1]] }))[0]!.key;
      expect(proposeSpellings(key, names.map(form))[0]?.differences).toEqual(['abbreviated']);
      return;
    }
    expect(first).toMatchObject({ names: expected, differences });
  });

  it.each<[string, (string | CslName)[]]>([
    ['other given names', ['Smith, John', 'Smith, James']],
    ['initials of other letters', ['Smith, I.', 'Smith, J.']],
    ['other second initials', ['Smith, J. A.', 'Smith, J. B.']],
    ['father and son', ['Pell, Edwin', 'Pell, Edwin, Jr.']],
    ['a given name that begins the other', ['Pell, Jo', 'Pell, Joanna']],
    ['other families', ['Weir, Anna', 'Moore, Anna']],
  ])('are not proposed for %s', (_what, names) => {
    expect(proposed('person', names)).toEqual([]);
  });

  it('leave a spelling alone that fits two people', () => {
    expect(proposed('person', ['Müller, A.', 'Müller, Anna', 'Müller, Andreas'])).toEqual([]);
    expect(proposed('person', ['Müller, A.', 'Muller, A.', 'Müller, Anna', 'Müller, Andreas'])).toEqual([
      { names: ['Müller, A.', 'Muller, A.'], differences: ['marks'], sure: true },
    ]);
  });

  it('leave apart what was said to be two people', () => {
    const [a, b, c] = ['Okafor, Chidi', 'Okafor, C.', 'Okafor, C'].map(form) as [string, string, string];
    const key = spellingsOf(record({ author: [nameOfForm(a)] }))[0]!.key;
    expect(proposeSpellings(key, [a, b], new Set([pairOfForms(b, a)]))).toEqual([]);
    expect(proposeSpellings(key, [a, b, c], new Set([pairOfForms(a, b)]))[0]?.forms).toEqual([b, c]);
  });

  it('are the same in any order', () => {
    const names = [
      'Müller, Anna',
      'Muller, Anna',
      'Müller, A.',
      'Müller, Andreas',
      'Müller, A. B.',
      'Mueller, A. B.',
    ];
    const forms = names.map(form);
    const key = spellingsOf(record({ author: [nameOfForm(forms[0]!)] }))[0]!.key;
    const once = proposeSpellings(key, forms);
    expect(once.length).toBeGreaterThan(0);
    fc.assert(
      fc.property(fc.shuffledSubarray(forms, { minLength: forms.length }), (some) => {
        expect(proposeSpellings(key, some)).toEqual(once);
      }),
    );
  });
});

describe('containers in several spellings', () => {
  // The abbreviations are those of the list of title word abbreviations that goes with ISO 4, from memory.
  it.each<[string, string[], string[], string[]]>([
    [
      'abbreviated',
      ['J. Mod. Hist.', 'The Journal of Modern History'],
      ['The Journal of Modern History', 'J. Mod. Hist.'],
      ['abbreviated'],
    ],
    [
      'contracted',
      ['Proc Natl Acad Sci', 'Proceedings of the National Academy of Sciences'],
      ['Proceedings of the National Academy of Sciences', 'Proc Natl Acad Sci'],
      ['abbreviated'],
    ],
    ['an ampersand', ['Tides & Mills', 'Tides and Mills'], ['Tides and Mills', 'Tides & Mills'], ['marks']],
    ['capitals', ['COASTAL STUDIES', 'Coastal Studies'], ['Coastal Studies', 'COASTAL STUDIES'], ['marks']],
    [
      'a subtitle',
      ['Coastal Studies', 'Coastal Studies: A Quarterly'],
      ['Coastal Studies: A Quarterly', 'Coastal Studies'],
      ['subtitle'],
    ],
    ['initials', ['JMH', 'Journal of Modern History'], ['Journal of Modern History', 'JMH'], ['acronym']],
  ])('%s', (_what, names, expected, differences) => {
    expect(proposed('container', names)).toMatchObject([{ names: expected, differences }]);
  });

  it.each<[string, string[]]>([
    ['another section', ['Physical Review A', 'Physical Review B']],
    ['a plural', ['Social Science Studies', 'Social Sciences Studies']],
    ['one word', ['Histor.', 'Historia']],
    ['another subtitle', ['Handbook of Mills: Water', 'Handbook of Mills: Wind']],
    ['more words', ['Journal of History', 'Journal of Historical Geography']],
  ])('are not proposed for %s', (_what, names) => {
    expect(proposed('container', names)).toEqual([]);
  });

  it('that share an ISSN are proposed whatever their words, once', () => {
    expect(proposed('container', ['Estudos do Mar', 'Studies of the Sea'], '2049-3630')).toMatchObject([
      { differences: ['issn'], sure: false },
    ]);
    expect(proposed('container', ['Coastal Studies', 'Coast. Stud.'], '2049-3630')).toMatchObject([
      { differences: ['abbreviated'] },
    ]);
  });
});

describe('one spelling', () => {
  const before = record({
    author: [
      { family: 'Okafor', given: 'C.' },
      { family: 'Pell', given: 'Edwin' },
    ],
    editor: [{ family: 'Okafor', given: 'C.' }],
    translator: [{ family: 'Weir', given: 'Anna' }],
    'container-title': 'J. Mod. Hist.',
  });
  it('is put wherever the others stand, and nowhere else', () => {
    const to = form('Okafor, Chidi');
    expect(respelled(before, 'person', new Set([form('Okafor, C.'), to]), to)).toEqual({
      author: [
        { family: 'Okafor', given: 'Chidi' },
        { family: 'Pell', given: 'Edwin' },
      ],
      editor: [{ family: 'Okafor', given: 'Chidi' }],
    });
    expect(respelled(before, 'container', new Set(['J. Mod. Hist.']), 'Journal of Modern History')).toEqual({
      'container-title': 'Journal of Modern History',
    });
  });
  it('changes nothing where it stands already', () => {
    const to = form('Okafor, C.');
    expect(respelled(before, 'person', new Set([to]), to)).toEqual({});
    expect(respelled(before, 'container', new Set(['J. Mod. Hist.']), 'J. Mod. Hist.')).toEqual({});
  });
});
