import type { Knex } from 'knex';
import { recordTable } from '../recordTable.js';

/** Readings say the weather, what grows and at which unit; events of the year and repairs; a newest-first way in. */
export async function up(knex: Knex): Promise<void> {
  await knex.schema.alterTable('reading', (t) => {
    t.text('unit').nullable();
    t.text('towards').nullable();
    t.text('weather').nullable();
    t.text('growth').nullable();
  });
  await recordTable(knex, 'event', (t) => {
    t.text('what').notNullable();
    t.text('line').nullable();
    t.float('at_m').nullable();
    t.text('spot').nullable();
    t.text('photo').nullable();
  });
  await recordTable(knex, 'repair', (t) => {
    t.text('line').nullable();
    t.float('at_m').nullable();
    t.text('spot').nullable();
    t.text('what').notNullable();
    t.integer('strand').nullable();
    t.text('joint').nullable();
    t.text('parts').notNullable();
    t.float('hours').notNullable();
    t.float('cost').notNullable();
    t.text('photo').nullable();
  });
}

/** Forward only: a store is never taken back to an older shape. */
export async function down(): Promise<void> {
  throw new Error('migrations go forward only');
}
