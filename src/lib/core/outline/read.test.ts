import { describe, expect, it } from 'vitest';
import { readMarkdownOutline, readNestedOutline, type ReadOutline } from './index';

const read = ({ title, sections }: ReadOutline) => [
  ...(title === undefined ? [] : [`= ${title}`]),
  ...sections.flatMap(({ name, depth, said }) => [
    '.'.repeat(depth) + name,
    ...said.map(({ kind, words }) => `${'.'.repeat(depth)}${kind === 'question' ? '?' : '-'} ${words}`),
  ]),
];

describe('an outline is read from Markdown', () => {
  it('headings as sections, under one title, paragraphs and list items as what is said', () => {
    const text = `---
title: x
---
# Tide mills

## How they *work*

Mills ground
with the **tide**.

- The miller slept by the moon.
- Who woke him?

### Gates

> They shut by [the ebb](http://x.example).

\`\`\`
# no heading
\`\`\`

Why they closed
---------------

1. Silt \\# 3.
`;
    expect(read(readMarkdownOutline(text))).toEqual([
      '= Tide mills',
      'How they work',
      '- Mills ground with the tide.',
      '- The miller slept by the moon.',
      '? Who woke him?',
      '.Gates',
      '.- They shut by the ebb.',
      'Why they closed',
      '- Silt # 3.',
    ]);
  });

  it('without gaps in depth, with what stands before the first heading', () => {
    expect(read(readMarkdownOutline('First words.\n\n# A\n\n#### B\n\n## C\n\n# D\n'))).toEqual([
      'Beginning',
      '- First words.',
      'A',
      '.B',
      '.C',
      'D',
    ]);
    expect(readMarkdownOutline('')).toEqual({ title: undefined, sections: [] });
  });
});

describe('an outline of nested lines', () => {
  it('has sections in those that hold others and in all at the top; others are said', () => {
    const leaf = (text: string) => ({ text, under: [] });
    const lines = [
      { text: 'A', under: [{ text: 'A1', under: [leaf('One.')] }, leaf('Of A.'), leaf('Why?')] },
      leaf('B'),
    ];
    expect(read(readNestedOutline(lines, 'Thesis'))).toEqual(['= Thesis', 'A', '- Of A.', '? Why?', '.A1', '.- One.', 'B']); // prettier-ignore
  });
});
