import { expect, it } from 'vitest';
import { leavesOf } from './leaves';
import { piece } from './pieces';
import { styleOf } from './test-style';

// CSS 2.2, “vertical-align”: the baseline is that of the parent. citeproc-js and pandoc print so.
it('what asks for the baseline inside raised text stays raised', () => {
  const raised = piece(['a', piece(['1'], { look: { align: 'baseline' } })], { look: { align: 'sup' } });
  const looks = leavesOf([raised], styleOf([]).locale).map(({ text, frame }) => [text, frame?.within.align]);
  expect(looks).toEqual([
    ['a', 'sup'],
    ['1', 'sup'],
  ]);
});
