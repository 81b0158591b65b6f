import type { Knex } from 'knex';

/** Checks of tension: which strand of which line, where, when, how warm, with what tool, and what it said. Append-only. */
export async function up(knex: Knex): Promise<void> {
  await knex.schema.createTable('tension_check', (t) => {
    t.increments('seq');
    t.text('id').notNullable().unique();
    t.text('property_id').notNullable().references('property.id');
    t.text('line').nullable();
    t.float('at_m').nullable();
    t.text('spot').nullable();
    t.integer('strand').notNullable();
    t.text('wire').notNullable();
    t.text('tool').notNullable();
    t.text('detail').notNullable();
    t.float('celsius').notNullable();
    t.float('tension_N').notNullable();
    t.float('error_N').notNullable();
    t.float('at15_N').notNullable();
    t.float('expected15_N').nullable();
    t.text('time').notNullable();
    t.text('who').notNullable();
    t.text('note').notNullable();
    t.text('corrects').nullable().unique().references('tension_check.id');
    t.boolean('void').notNullable().defaultTo(false);
    t.text('saved_at').notNullable();
    t.index(['property_id', 'seq']);
  });
  for (const what of ['update', 'delete'])
    await knex.raw(
      `create trigger tension_check_no_${what} before ${what} on tension_check begin select raise(abort, 'tension checks are append-only'); end`,
    );
}

/** Forward only: a store is never taken back to an older shape. */
export async function down(): Promise<void> {
  throw new Error('migrations go forward only');
}
