import type { Knex } from 'knex';

const inBin = (row: string, n: 1 | -1) =>
  `INSERT INTO tally (library_id, project_id, person_id, what, n) SELECT ${row}.library_id, '', CASE ${row}.visibility WHEN 'private' THEN ${row}.owner_id ELSE '' END, 'bin', ${n} WHERE ${row}.binned IS NOT NULL ON CONFLICT (library_id, project_id, person_id, what) DO UPDATE SET n = n + excluded.n;`;

/**
 * What is kept of a reading: how a quotation is worded in print, tags, links between passages, tasks, places of passages in
 * the outline. What one thinks of a work is a response, no longer a comment.
 */
export async function up(db: Knex): Promise<void> {
  await db.schema.alterTable('passage', (t) => {
    t.text('wording');
    t.text('tags').notNullable().defaultTo('[]');
  });
  await db('passage').where({ kind: 'comment' }).update({ kind: 'response' });
  const said = '"path":"/kind","value":"comment"';
  for (const way of ['forward', 'backward'])
    await db('revision')
      .where({ subject: 'passage' })
      .where(way, 'like', `%${said}%`)
      .update({ [way]: db.raw(`replace(${way}, ?, ?)`, [said, said.replace('comment', 'response')]) });

  await db.schema.createTable('passage_tag', (t) => {
    t.string('library_id').notNullable();
    t.string('passage_id').notNullable().references('passage.id').onDelete('CASCADE');
    t.string('tag').notNullable();
    t.primary(['passage_id', 'tag']);
    t.index(['library_id', 'tag']);
  });
  await db.schema.createTable('passage_link', (t) => {
    t.string('library_id').notNullable().references('library.id');
    t.string('from_id').notNullable().references('passage.id').onDelete('CASCADE');
    t.string('to_id').notNullable().references('passage.id').onDelete('CASCADE');
    t.string('kind').notNullable();
    t.string('person_id').notNullable().references('person.id');
    t.string('at').notNullable();
    t.primary(['from_id', 'to_id']);
    t.index(['to_id']);
  });
  await db.schema.createTable('task', (t) => {
    t.string('id').primary();
    t.string('library_id').notNullable().references('library.id');
    t.string('owner_id').notNullable().references('person.id');
    t.text('text').notNullable();
    t.string('due');
    t.string('done');
    t.string('source_id').references('source.id');
    t.string('passage_id').references('passage.id');
    t.string('visibility').notNullable().checkIn(['private', 'library']);
    t.integer('revision').notNullable();
    t.string('added').notNullable();
    t.string('binned');
    t.index(['library_id', 'binned', 'done', 'due']);
    t.index(['source_id']);
    t.index(['passage_id']);
  });
  await db.raw(
    `CREATE TRIGGER tally_task_change AFTER UPDATE OF binned, visibility ON task BEGIN ${inBin('OLD', -1)}${inBin('NEW', 1)} END`,
  );
  await db.raw(`CREATE TRIGGER tally_task_out AFTER DELETE ON task BEGIN ${inBin('OLD', -1)} END`);
  await db.schema.createTable('reading_place', (t) => {
    t.string('library_id').notNullable().references('library.id');
    t.string('copy_id').notNullable().references('copy.id').onDelete('CASCADE');
    t.string('person_id').notNullable().references('person.id');
    // UTF-16 units of the copy's text: where one stopped, how far one ever came, and how long it is.
    t.integer('at').notNullable();
    t.integer('furthest').notNullable();
    t.integer('length').notNullable();
    t.string('read').notNullable();
    t.primary(['copy_id', 'person_id']);
  });
  await db.schema.createTable('copy_picture', (t) => {
    t.string('library_id').notNullable().references('library.id');
    t.string('copy_id').notNullable().references('copy.id').onDelete('CASCADE');
    t.string('sha256').notNullable();
    t.string('media_type').notNullable();
    t.text('address').notNullable();
    t.primary(['copy_id', 'sha256']);
    t.index(['sha256']);
  });
  await db.raw(
    'CREATE UNIQUE INDEX placement_of_passage ON placement (passage_id, section_id) WHERE passage_id IS NOT NULL',
  );

  // SQLite cannot change a check, so the table is set up anew: tasks have a history too.
  await db.raw('DROP INDEX revision_of_subject');
  await db.schema.renameTable('revision', 'revision_before');
  await db.schema.createTable('revision', (t) => {
    t.string('id').primary();
    t.string('library_id').notNullable().references('library.id');
    t.string('subject').notNullable().checkIn(['source', 'passage', 'note', 'lead', 'task']);
    t.string('subject_id').notNullable();
    t.integer('number').notNullable();
    t.string('person_id').notNullable().references('person.id');
    t.string('at').notNullable();
    t.string('why').notNullable();
    t.text('forward').notNullable();
    t.text('backward').notNullable();
  });
  const columns = 'id, library_id, subject, subject_id, number, person_id, at, why, forward, backward';
  await db.raw(`INSERT INTO revision (${columns}) SELECT ${columns} FROM revision_before`);
  await db.schema.dropTable('revision_before');
  await db.raw('CREATE UNIQUE INDEX revision_of_subject ON revision (subject_id, number)');
}
