/** The rooms of the core that print and write; what is asked of them is said in `growth.ts`. */
import { describe, expect, it } from 'vitest';
import { grows, PRINTING, TAKES } from './growth';

for (const room of PRINTING)
  describe(`core/${room}`, () => {
    it.each(Object.entries(TAKES[room]!))(
      '%s takes time in proportion to its text',
      { timeout: 600_000 },
      (_name, take) => {
        expect(grows(take)).toBeUndefined();
      },
    );
  });
