import type { Knex } from 'knex';

/**
 * What is said of an import beside every page is kept beside its report, which can be as long as its file. Printed
 * references are printed anew: a line of a note no longer fills in a field.
 */
export async function up(db: Knex): Promise<void> {
  await db.schema.alterTable('job', (t) => {
    t.text('brief');
  });
  const count = (name: string) => `coalesce(json_array_length(result, '$.${name}'), 0)`;
  await db.raw(`
    UPDATE job SET brief = CASE json_extract(result, '$.kind')
      WHEN 'asks' THEN json_object('kind', 'asks', 'total', json_extract(result, '$.total'), 'here', ${count('here')})
      ELSE json_object('kind', 'done', 'added', ${count('added')}, 'merged', ${count('merged')}, 'skipped', ${count('skipped')})
    END
    WHERE kind = 'import' AND json_type(result) = 'object'`);
  await db('printed').delete();
  await db('printed_list').delete();
}
