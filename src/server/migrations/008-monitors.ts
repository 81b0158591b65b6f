import type { Knex } from 'knex';

/** Devices that report a reading by themselves; of the token that lets one in only its hash is kept. */
export async function up(knex: Knex): Promise<void> {
  await knex.schema.createTable('monitor', (t) => {
    t.text('id').primary();
    t.text('property_id').notNullable().references('property.id');
    t.text('name').notNullable();
    t.text('kind').notNullable();
    t.text('line').nullable();
    t.float('at_m').nullable();
    t.text('unit').nullable();
    t.boolean('simulated').notNullable();
    t.text('token_hash').notNullable().unique();
    t.text('made_at').notNullable();
    t.text('revoked_at').nullable();
    t.text('heard_at').nullable();
    t.float('heard').nullable();
    t.text('kept_at').nullable();
    t.float('kept').nullable();
    t.index(['property_id']);
  });
}

/** Forward only: a store is never taken back to an older shape. */
export async function down(): Promise<void> {
  throw new Error('migrations go forward only');
}
