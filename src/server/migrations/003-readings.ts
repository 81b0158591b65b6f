import type { Knex } from 'knex';

/**
 * Readings: what a voltmeter or another instrument said, where and when. Append-only: a correction is a
 * row of its own that names the one it corrects, and nothing is ever altered or taken away.
 */
export async function up(knex: Knex): Promise<void> {
  await knex.schema.createTable('reading', (t) => {
    // In the order in which they came in; what a tab asks for "since".
    t.increments('seq');
    // Made by the client: sent twice, kept once.
    t.text('id').notNullable().unique();
    t.text('property_id').notNullable().references('property.id');
    t.text('line').nullable();
    t.float('at_m').nullable();
    t.text('spot').nullable();
    t.text('kind').notNullable();
    t.float('value').notNullable();
    t.text('time').notNullable();
    t.text('who').notNullable();
    t.text('note').notNullable();
    t.text('corrects').nullable().unique().references('reading.id');
    t.boolean('void').notNullable().defaultTo(false);
    t.text('saved_at').notNullable();
    t.index(['property_id', 'seq']);
  });
  for (const what of ['update', 'delete'])
    await knex.raw(
      `create trigger reading_no_${what} before ${what} on reading begin select raise(abort, 'readings are append-only'); end`,
    );
}

/** Forward only: a store is never taken back to an older shape. */
export async function down(): Promise<void> {
  throw new Error('migrations go forward only');
}
