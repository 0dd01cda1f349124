/** Passages found again in a book that was changed; how the book is made and what is done to it is said beside its generator. */
import { describe, expect, it } from 'vitest';
import { anchorAll, anchorer } from '../../src/lib/core/passages';
import { book, outcome } from '../anchoring/book';

describe('five hundred passages of a book that was changed', () => {
  it.each([1, 2, 3, 4])('are found where they are, and those left out are not (seed %d)', (seed) => {
    const made = book(seed, 1_000_000, 500);
    const { there, right, gone, raised, wrong } = outcome(
      made,
      anchorAll(
        made.later,
        made.passages.map((p) => p.selectors),
      ),
    );
    expect(gone).toBe(50);
    expect(raised, wrong.join('\n')).toBe(0);
    expect(right / there, wrong.join('\n')).toBeGreaterThanOrEqual(0.99);
  });
  it('are all where they were in the book as it was', () => {
    const made = book(5, 300_000, 200);
    const find = anchorer(made.before);
    for (const { selectors } of made.passages) expect(find(selectors).state).toBe('found');
  });
});
