import type { Knex } from 'knex';

/**
 * An undo names the change that it takes back (`of`), since another tab may have changed something in
 * between; a document brought up to a newer version is a change of its own kind (`lift`). SQLite
 * cannot alter a check, hence the table made anew.
 */
export async function up(knex: Knex): Promise<void> {
  await knex.schema.createTable('change_new', (t) => {
    t.text('property_id').notNullable().references('property.id');
    t.integer('revision').notNullable();
    t.text('change_id').notNullable();
    t.text('tab').notNullable();
    t.integer('base').notNullable();
    t.text('kind').notNullable();
    t.text('of').nullable();
    t.text('words').notNullable();
    t.text('patch').notNullable();
    t.text('inverse').notNullable();
    t.text('at').notNullable();
    t.primary(['property_id', 'revision']);
    t.check("kind in ('do', 'undo', 'redo', 'lift')");
  });
  const kept = 'property_id, revision, change_id, tab, base, kind, words, patch, inverse, at';
  await knex.raw(`insert into change_new (${kept}) select ${kept} from change`);
  await knex.schema.dropTable('change');
  await knex.schema.renameTable('change_new', 'change');
  await knex.raw('create unique index change_change_id on change (change_id)');
}

/** Forward only: a store is never taken back to an older shape. */
export async function down(): Promise<void> {
  throw new Error('migrations go forward only');
}
