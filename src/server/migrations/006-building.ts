import type { Knex } from 'knex';
import { recordTable } from '../recordTable.js';

/** Work that was done, things inspected, what was loaded or forgotten; photos by the hash of their content. */
export async function up(knex: Knex): Promise<void> {
  await recordTable(knex, 'work_done', (t) => {
    t.text('task').notNullable();
    t.text('kind').notNullable();
    t.text('day').notNullable();
    t.float('hours').notNullable();
    t.float('share').notNullable();
    t.float('planned_h').notNullable();
    t.boolean('counts').nullable();
  });
  await recordTable(knex, 'inspection', (t) => {
    t.text('check').notNullable();
    t.text('line').nullable();
    t.float('at_m').nullable();
    t.text('spot').nullable();
    t.text('result').notNullable();
    t.text('photo').nullable();
  });
  await recordTable(knex, 'load_tick', (t) => {
    t.text('day').notNullable();
    t.text('item').notNullable();
    t.text('kind').notNullable();
    t.text('state').notNullable();
  });
  await knex.schema.createTable('photo', (t) => {
    t.increments('seq');
    t.text('property_id').notNullable().references('property.id');
    t.text('hash').notNullable();
    t.integer('size').notNullable();
    t.binary('content').notNullable();
    t.text('saved_at').notNullable();
    t.unique(['property_id', 'hash']);
  });
  for (const what of ['update', 'delete'])
    await knex.raw(
      `create trigger photo_no_${what} before ${what} on photo begin select raise(abort, 'photos are append-only'); end`,
    );
}

/** Forward only: a store is never taken back to an older shape. */
export async function down(): Promise<void> {
  throw new Error('migrations go forward only');
}
