import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { asContent, contentOf, namedIn, noteContent, plainOf, renamed, type NoteContent } from './index';

const SEED = Number(process.env.SEED ?? 20261128);

const pell = { kind: 'source' as const, id: 's1', label: 'Pell 2001' };
const content: NoteContent = [
  {
    type: 'paragraph',
    content: [
      { type: 'text', text: 'Compare ' },
      { type: 'named', attrs: pell },
      { type: 'text', text: ' closely', marks: [{ type: 'bold' }] },
    ],
  },
  {
    type: 'bulletList',
    content: [
      {
        type: 'listItem',
        content: [
          { type: 'paragraph', content: [{ type: 'text', text: 'sluice' }] },
          {
            type: 'orderedList',
            content: [
              {
                type: 'listItem',
                content: [{ type: 'paragraph', content: [{ type: 'text', text: 'gate' }] }],
              },
            ],
          },
        ],
      },
      { type: 'listItem', content: [{ type: 'paragraph' }] },
    ],
  },
  {
    type: 'blockquote',
    content: [
      {
        type: 'paragraph',
        content: [{ type: 'text', text: 'one' }, { type: 'hardBreak' }, { type: 'text', text: 'two' }],
      },
    ],
  },
];

describe('the words of a note', () => {
  it('stand as they are read, without their look', () => {
    expect(plainOf(content)).toBe('Compare Pell 2001 closely\n\n- sluice\n  1. gate\n- \n\n> one\n> two');
  });
  it(`typed without an editor come back as they were (seed ${SEED})`, () => {
    const line = fc.stringMatching(/^[a-zé,.]([ a-zé,.]{0,20}[a-zé,.])?$/);
    fc.assert(
      fc.property(
        fc.array(fc.array(line, { minLength: 1, maxLength: 4 }), { minLength: 1, maxLength: 5 }),
        (all) => {
          const words = all.map((lines) => lines.join('\n')).join('\n\n');
          expect(plainOf(contentOf(words))).toBe(words);
          expect(asContent(contentOf(words))).toBeNull();
        },
      ),
      { seed: SEED },
    );
  });
});

describe('what a note is made of', () => {
  it('is kept where it has a look or names something', () => {
    expect(asContent(content)).toBe(content);
    expect(asContent([{ type: 'paragraph' }])).toBeNull();
    expect(namedIn([...content, ...content])).toEqual([pell]);
  });
  it('is refused where an editor could not have made it', () => {
    const refused = (value: unknown) => !noteContent.safeParse(value).success;
    expect(refused([{ type: 'heading', content: [] }])).toBe(true);
    expect(refused([{ type: 'paragraph', content: [{ type: 'image', src: 'x' }] }])).toBe(true);
    const link = (href: string) => [
      {
        type: 'paragraph',
        content: [{ type: 'text', text: 'x', marks: [{ type: 'link', attrs: { href } }] }],
      },
    ];
    expect(refused(link('javascript:alert(1)'))).toBe(true);
    expect(refused(link('https://shore.example/'))).toBe(false);
    const long: NoteContent = Array.from({ length: 2 }, () => contentOf('x'.repeat(60_000))).flat();
    expect(refused(long)).toBe(true);
    expect(noteContent.parse(content)).toEqual(content);
  });
  it('is refused where it is nested without end, in no time', () => {
    let deep: object = { type: 'paragraph' };
    for (let i = 0; i < 5_000; i++) deep = { type: 'blockquote', content: [deep] };
    expect(noteContent.safeParse([deep]).success).toBe(false);
  });
  it('calls what it names otherwise, and what is gone by its words', () => {
    const called = renamed(content, () => 'Pell 2003');
    expect(namedIn(called)).toEqual([{ ...pell, label: 'Pell 2003' }]);
    const gone = renamed(content, () => undefined);
    expect(namedIn(gone)).toEqual([]);
    expect(plainOf(gone)).toBe(plainOf(content));
  });
});
