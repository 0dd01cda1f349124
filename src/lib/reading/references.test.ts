import { describe, expect, it } from 'vitest';
import { sniff } from '../core/formats';
import { readReferences } from './references';

// Laid out as the National Library of Medicine's field descriptions have it; the article is invented.
const MEDLINE = `
PMID- 99000001
STAT- MEDLINE
DP  - 2021 Nov-Dec
TI  - Salt marsh recovery behind breached dams: a
      twenty-year record.
PG  - 112-30
LID - 10.5555/ml.2021.7 [doi]
AB  - Marshes came back.
FAU - Ferreira, Ana Maria
AU  - Ferreira AM
FAU - van der Zee, Mieke
AU  - van der Zee M
CN  - Sound Monitoring Group
LA  - eng
PT  - Journal Article
TA  - Marsh Lett
JT  - Marsh letters
VI  - 12
IP  - 6
IS  - 0317-8471 (Print)
MH  - *Wetlands
OT  - tide mills
PMC - PMC900001

PMID- 99000002
TI  - [Gezeitenm\u00fchlen].
AU  - Brandt K Jr
DP  - 1998 Mar 5
PT  - Book Chapter
BTI - Coastal works
XX  - odd
`;

describe('MEDLINE', () => {
  const { entries, skipped } = readReferences('medline', MEDLINE);
  it('is told by its tags', () => expect(sniff(MEDLINE)).toBe('medline'));
  it('gives each record with its line', () => {
    expect(skipped).toEqual([]);
    expect(entries.map((e) => e.line)).toEqual([2, 26]);
    expect(entries[0]!.record).toMatchObject({
      type: 'article-journal',
      title: 'Salt marsh recovery behind breached dams: a twenty-year record',
      author: [
        { family: 'Ferreira', given: 'Ana Maria' },
        { 'non-dropping-particle': 'van der', family: 'Zee', given: 'Mieke' },
        { literal: 'Sound Monitoring Group' },
      ],
      issued: {
        'date-parts': [
          [2021, 11],
          [2021, 12],
        ],
      },
      page: '112-130',
      DOI: '10.5555/ml.2021.7',
      'container-title': 'Marsh letters',
      'container-title-short': 'Marsh Lett',
      ISSN: '0317-8471',
      language: 'en',
      PMID: '99000001',
      PMCID: 'PMC900001',
      retexa: { tags: ['Wetlands', 'tide mills'] },
    });
    expect(entries[1]!.record).toMatchObject({
      type: 'chapter',
      title: 'Gezeitenmühlen',
      'container-title': 'Coastal works',
      author: [{ family: 'Brandt', given: 'K.', suffix: 'Jr' }],
      issued: { 'date-parts': [[1998, 3, 5]] },
      retexa: { kept: { medline: { XX: 'odd' } } },
    });
  });
});

describe('catalogue records', () => {
  // Elements: MODS 3.7 and MARC 21 slim schemas of the Library of Congress; the books are invented.
  const MODS = `<?xml version="1.0"?>
<modsCollection xmlns="http://www.loc.gov/mods/v3">
<mods><titleInfo><title>Tide mills of the sounds</title></titleInfo><name type="personal"><namePart>Zee, Mieke</namePart><role><roleTerm type="code">aut</roleTerm></role></name><typeOfResource>text</typeOfResource><originInfo><dateIssued>2003</dateIssued></originInfo></mods>
<mods><titleInfo><title>Second</title></titleInfo></mods>
</modsCollection>`;
  const MARC = `<collection xmlns="http://www.loc.gov/MARC21/slim"><record><leader>00000nam a2200000 a 4500</leader><datafield tag="100" ind1="1" ind2=" "><subfield code="a">Pell, Ida.</subfield></datafield><datafield tag="245" ind1="1" ind2="0"><subfield code="a">Dams /</subfield></datafield></record></collection>`;
  it('are read from MODS and MARCXML, each with its line and its origin in the file', () => {
    expect(sniff(MODS)).toBe('mods');
    expect(sniff(MARC)).toBe('marcxml');
    const { entries } = readReferences('mods', MODS);
    expect(entries.map((e) => [e.line, e.record.title])).toEqual([
      [3, 'Tide mills of the sounds'],
      [4, 'Second'],
    ]);
    expect(entries[0]!.record.retexa.origins.title![0]!.kind).toBe('file');
    expect(readReferences('marcxml', MARC).entries[0]!.record).toMatchObject({
      title: 'Dams',
      author: [{ family: 'Pell', given: 'Ida' }],
    });
  });
  it('say what is wrong with XML that is not well formed, or holds none', () => {
    expect(readReferences('mods', '<mods><title></mods>').skipped[0]!.reason).toContain('not well-formed');
    expect(readReferences('mods', '<x/>').skipped[0]!.reason).toContain('no MODS');
    expect(readReferences('mods', '<!DOCTYPE a [<!ENTITY b "c">]><mods/>').skipped[0]!.reason).toContain(
      'entities',
    );
  });
});

describe('COinS', () => {
  // Keys: ANSI/NISO Z39.88-2004, KEV metadata format for journals.
  const SPAN =
    '<p>x</p>\n<span class="Z3988" title="ctx_ver=Z39.88-2004&amp;rft_val_fmt=info%3Aofi%2Ffmt%3Akev%3Amtx%3Ajournal&amp;rft.genre=article&amp;rft.atitle=Sluices&amp;rft.jtitle=Marsh+Letters&amp;rft.date=2004&amp;rft.aulast=Sato&amp;rft.aufirst=Yuki"></span>';
  it('are read from the text that holds them', () => {
    expect(sniff(SPAN)).toBe('coins');
    const { entries } = readReferences('coins', SPAN);
    expect(entries[0]).toMatchObject({
      line: 2,
      record: {
        type: 'article-journal',
        title: 'Sluices',
        'container-title': 'Marsh Letters',
        author: [{ family: 'Sato', given: 'Yuki' }],
      },
    });
    expect(entries[0]!.record.accessed).toBeUndefined();
  });
});
