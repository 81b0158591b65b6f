import type { Knex } from 'knex';

/** Properties, their append-only changes, snapshots, and ground grids. */
export async function up(knex: Knex): Promise<void> {
  await knex.schema.createTable('property', (t) => {
    t.text('id').primary();
    t.text('name').notNullable();
    t.text('created_at').notNullable();
  });
  await knex.schema.createTable('grid', (t) => {
    // The id is the content's hash: the same ground is kept once.
    t.text('id').primary();
    t.text('body').notNullable();
  });
  await knex.schema.createTable('change', (t) => {
    t.text('property_id').notNullable().references('property.id');
    t.integer('revision').notNullable();
    t.text('change_id').notNullable().unique();
    t.text('tab').notNullable();
    t.integer('base').notNullable();
    t.text('kind').notNullable().checkIn(['do', 'undo', 'redo']);
    t.text('words').notNullable();
    t.text('patch').notNullable();
    t.text('inverse').notNullable();
    t.text('at').notNullable();
    t.primary(['property_id', 'revision']);
  });
  await knex.schema.createTable('snapshot', (t) => {
    t.text('property_id').notNullable().references('property.id');
    t.integer('revision').notNullable();
    t.text('plan').notNullable();
    t.primary(['property_id', 'revision']);
  });
}

/** Forward only: a store is never taken back to an older shape. */
export async function down(): Promise<void> {
  throw new Error('migrations go forward only');
}
