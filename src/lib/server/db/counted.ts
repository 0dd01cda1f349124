import type { Knex } from 'knex';

/** How many rows a query finds; the query itself is left as it is. */
export const counted = async (query: Knex.QueryBuilder): Promise<number> =>
  ((await query.clone().count({ n: '*' })) as unknown as [{ n: number }])[0].n;
