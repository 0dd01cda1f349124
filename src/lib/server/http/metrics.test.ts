import { afterEach, expect, it } from 'vitest';
import { openTestLibrary } from '../test-library';
import { mayMeasure, metricsText, noteAnswer } from './metrics';

afterEach(() => delete process.env.RETEXA_METRICS);

it('is answered to who sends the secret that is set, and to nobody where none or a short one is', () => {
  expect(mayMeasure('Bearer x')).toBe(false);
  process.env.RETEXA_METRICS = 'short';
  expect(mayMeasure('Bearer short')).toBe(false);
  process.env.RETEXA_METRICS = 'a secret of some length';
  expect([null, 'Bearer a secret of some', 'Bearer a secret of some length'].map(mayMeasure)).toEqual([
    false,
    false,
    true,
  ]);
});

it('is text as OpenMetrics 1.0 has it: types before samples, cumulative buckets, EOF at the end', async () => {
  const { db } = await openTestLibrary();
  noteAnswer(200, 0.02);
  noteAnswer(404, 0.2);
  const text = await metricsText(db);
  await db.destroy();
  expect(text).toMatch(/\n# EOF\n$/);
  expect(text).toContain('retexa_answers_total{status="2xx"} 1\n');
  const buckets = [...text.matchAll(/_bucket\{le="[^"]+"\} (\d+)/g)].map((m) => Number(m[1]));
  expect(buckets).toEqual([...buckets].sort((a, b) => a - b));
  expect(buckets.at(-1)).toBe(2);
  // Each sample belongs to a family that is declared (OpenMetrics 1.0, 4.5).
  const families = [...text.matchAll(/^# TYPE (\S+)/gm)].map((m) => m[1]!);
  for (const [name] of text.matchAll(/^[a-z_]+/gm))
    expect(
      families.some((f) => name!.startsWith(f)),
      name,
    ).toBe(true);
});
