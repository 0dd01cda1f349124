/** The rooms of the core that read and compare; what is asked of them is said in `growth.ts`. */
import { describe, expect, it } from 'vitest';
import { DOORS, grows, NO_TEXT, PRINTING, TAKES } from './growth';

const HERE = [
  'members',
  'text',
  'source',
  'leads',
  'capture',
  'passages',
  'query',
  'proof',
  'duplicates',
  'figures',
  'documents',
  'notes',
];
for (const room of HERE)
  describe(`core/${room}`, () => {
    it.each(Object.entries(TAKES[room]!))(
      '%s takes time in proportion to its text',
      { timeout: 600_000 },
      (_name, take) => {
        expect(grows(take)).toBeUndefined();
      },
    );
  });

describe('functions of the core', () => {
  it.each(Object.entries(DOORS))('that take text are all among these: %s', (room, door) => {
    const functions = Object.entries(door)
      .filter(([, value]) => typeof value === 'function')
      .map(([name]) => name);
    expect(functions.filter((name) => !NO_TEXT.has(name) && !(name in (TAKES[room] ?? {})))).toEqual([]);
  });

  it('are tried in one of the files of growth', () => {
    expect(
      Object.keys(TAKES)
        .filter((room) => !PRINTING.includes(room))
        .sort(),
    ).toEqual([...HERE].sort());
  });
});
