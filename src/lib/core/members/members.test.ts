import { describe, expect, it } from 'vitest';
import { lesser, may, RIGHTS, ROLES } from '.';

describe('roles', () => {
  it('each may all that the next one may, and no two the same', () => {
    const sets = ROLES.map((role) => RIGHTS.filter((right) => may(role, right)));
    for (const [i, rights] of sets.entries()) {
      const next = sets[i + 1];
      if (next) expect(rights.length).toBeGreaterThan(next.length);
      for (const right of next ?? []) expect(rights).toContain(right);
    }
  });

  it('of two, the lesser has no right that either lacks', () => {
    for (const one of ROLES)
      for (const other of ROLES)
        for (const right of RIGHTS)
          expect(may(lesser(one, other), right)).toBe(may(one, right) && may(other, right));
  });
});
