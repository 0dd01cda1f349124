import type { Knex } from 'knex';
import { hashOf } from '../access/secrets';
import { config } from '../config';

/** Upper bounds of how long answers took, in seconds. */
const BOUNDS = [0.01, 0.05, 0.1, 0.3, 0.5, 1, 3, 10];

const answers = new Map<string, number>();
const buckets = BOUNDS.map(() => 0);
let count = 0;
let sum = 0;

/** Counts an answer: its status, and how long it took, in seconds. */
export function noteAnswer(status: number, seconds: number): void {
  const kind = `${Math.floor(status / 100)}xx`;
  answers.set(kind, (answers.get(kind) ?? 0) + 1);
  for (const [i, bound] of BOUNDS.entries()) if (seconds <= bound) buckets[i]!++;
  count++;
  sum += seconds;
}

/** Whether a request brings the secret that is set for measuring; never where none is set. */
export function mayMeasure(authorization: string | null): boolean {
  const secret = config.metricsSecret;
  return (
    secret !== undefined && authorization !== null && hashOf(authorization) === hashOf(`Bearer ${secret}`)
  );
}

/** What is measured, in the OpenMetrics text format 1.0: how the server answers, how much there is, and what is under way. No name of anybody or anything is in it. */
export async function metricsText(db: Knex): Promise<string> {
  const counted = async (table: string, where: Record<string, unknown> = {}) =>
    ((await db(table).where(where).count({ n: '*' }).first()) as unknown as { n: number }).n;
  const memory = process.memoryUsage();
  const lines = [
    '# TYPE retexa_answers counter',
    '# HELP retexa_answers Answers by the first digit of their status.',
    ...[...answers].sort().map(([kind, n]) => `retexa_answers_total{status="${kind}"} ${n}`),
    '# TYPE retexa_answer_seconds histogram',
    '# UNIT retexa_answer_seconds seconds',
    '# HELP retexa_answer_seconds How long answers took.',
    ...BOUNDS.map((bound, i) => `retexa_answer_seconds_bucket{le="${bound}"} ${buckets[i]}`),
    `retexa_answer_seconds_bucket{le="+Inf"} ${count}`,
    `retexa_answer_seconds_count ${count}`,
    `retexa_answer_seconds_sum ${sum.toFixed(6)}`,
  ];
  const gauge = (name: string, help: string, value: number) =>
    lines.push(`# TYPE ${name} gauge`, `# HELP ${name} ${help}`, `${name} ${value}`);
  gauge('retexa_sources', 'Sources in all libraries.', await counted('source'));
  gauge('retexa_accounts', 'Accounts.', await counted('account'));
  gauge(
    'retexa_jobs_waiting',
    'Long work that waits for its turn.',
    await counted('job', { state: 'waiting' }),
  );
  gauge('retexa_jobs_running', 'Long work under way.', await counted('job', { state: 'running' }));
  gauge('retexa_memory_bytes', 'Memory the process holds.', memory.rss);
  gauge('retexa_uptime_seconds', 'How long the process has run.', Math.round(process.uptime()));
  return `${lines.join('\n')}\n# EOF\n`;
}
