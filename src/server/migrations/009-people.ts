import type { Knex } from 'knex';

/** People with a role and the hash of a pass phrase, who is signed in, links to read one property; who made a change. */
export async function up(knex: Knex): Promise<void> {
  await knex.schema.createTable('person', (t) => {
    t.text('id').primary();
    t.text('name').notNullable();
    // As names are compared: nobody is to take another's for theirs.
    t.text('known_as').notNullable().unique();
    t.text('role').notNullable();
    t.text('phrase').notNullable();
    t.text('made_at').notNullable();
  });
  await knex.schema.createTable('share', (t) => {
    t.text('id').primary();
    t.text('property_id').notNullable().references('property.id');
    t.text('words').notNullable();
    t.text('token_hash').notNullable().unique();
    t.text('made_at').notNullable();
    t.text('revoked_at').nullable();
    t.text('used_at').nullable();
    t.index(['property_id']);
  });
  await knex.schema.createTable('session', (t) => {
    t.text('token_hash').primary();
    t.text('person_id').nullable().references('person.id').onDelete('cascade');
    t.text('share_id').nullable().references('share.id').onDelete('cascade');
    t.integer('seen_ms').notNullable();
    t.index(['person_id']);
  });
  await knex.schema.alterTable('change', (t) => {
    t.text('who').nullable();
  });
}

/** Forward only: a store is never taken back to an older shape. */
export async function down(): Promise<void> {
  throw new Error('migrations go forward only');
}
