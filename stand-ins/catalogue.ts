import type { ServerResponse } from 'node:http';

interface Book {
  xml: string;
  isbns: string[];
}

const field = (tag: string, ind: string, subfields: [string, string][]) =>
  `<marc:datafield tag="${tag}" ind1="${ind[0]}" ind2="${ind[1]}">${subfields.map(([c, t]) => `<marc:subfield code="${c}">${t}</marc:subfield>`).join('')}</marc:datafield>`;

const GATES = `<marc:record xmlns:marc="http://www.loc.gov/MARC21/slim"><marc:leader>01142nam a2200301 a 4500</marc:leader>
<marc:controlfield tag="008">180312s2018    xx            000 0 eng d</marc:controlfield>
${field('020', '  ', [['a', '9781861972712 (pbk.)']])}${field('100', '1 ', [
  ['a', 'Osei, Kofi,'],
  ['e', 'author.'],
])}
${field('245', '10', [
  ['a', 'Gates of the Long Sound :'],
  ['b', 'tide mills and their keepers /'],
  ['c', 'Kofi Osei ; translated by Anna von der Heide.'],
])}
${field('250', '  ', [['a', '3rd ed.']])}${field('264', ' 1', [
  ['a', 'Northsound :'],
  ['b', 'Strand University Press,'],
  ['c', '2018.'],
])}
${field('300', '  ', [['a', 'xii, 288 pages ;']])}${field('490', '1 ', [
  ['a', 'Shore studies ;'],
  ['v', 'vol. 4'],
])}
${field('700', '1 ', [
  ['a', 'von der Heide, Anna,'],
  ['e', 'translator.'],
])}</marc:record>`;

const WATER = `<mods xmlns="http://www.loc.gov/mods/v3"><titleInfo><title>Water and work</title><subTitle>mills, tides and towns</subTitle></titleInfo>
<name type="personal"><namePart type="family">Osei</namePart><namePart type="given">Kofi</namePart><role><roleTerm type="code">edt</roleTerm></role></name>
<name type="personal"><namePart type="family">Lindqvist</namePart><namePart type="given">Maja</namePart><role><roleTerm type="text">editor</roleTerm></role></name>
<typeOfResource>text</typeOfResource><originInfo><place><placeTerm type="text">Northsound</placeTerm></place><publisher>Strand University Press</publisher>
<dateIssued>2015</dateIssued><edition>2nd ed.</edition></originInfo><language><languageTerm type="code">eng</languageTerm></language>
<physicalDescription><extent>312 p.</extent></physicalDescription><identifier type="isbn">9780306406157</identifier></mods>`;

const BOOKS: Book[] = [
  { xml: GATES, isbns: ['9781861972712', '1861972717'] },
  { xml: WATER, isbns: ['9780306406157', '0306406152'] },
];

/** Answers an SRU searchRetrieve by ISBN, in MARCXML or MODS as the book has it (SRU 1.2). */
export function catalogue(response: ServerResponse, query: URLSearchParams): void {
  const isbn = /(\d{13}|\d{9}[\dXx])/.exec(query.get('query') ?? '')?.[1];
  const found = BOOKS.filter((b) => isbn && b.isbns.includes(isbn));
  const records = found
    .map(
      (b) =>
        `<zs:record><zs:recordPacking>xml</zs:recordPacking><zs:recordData>${b.xml}</zs:recordData></zs:record>`,
    )
    .join('');
  const diagnostics = isbn
    ? ''
    : '<zs:diagnostics><diag:diagnostic xmlns:diag="http://www.loc.gov/zing/srw/diagnostic/"><diag:uri>info:srw/diagnostic/1/10</diag:uri><diag:message>Query syntax error</diag:message></diag:diagnostic></zs:diagnostics>';
  response
    .writeHead(200, { 'content-type': 'application/xml; charset=utf-8' })
    .end(
      `<?xml version="1.0" encoding="UTF-8"?><zs:searchRetrieveResponse xmlns:zs="http://www.loc.gov/zing/srw/"><zs:version>1.1</zs:version><zs:numberOfRecords>${found.length}</zs:numberOfRecords><zs:records>${records}</zs:records>${diagnostics}</zs:searchRetrieveResponse>`,
    );
}
