import type { Knex } from 'knex';

/** A table of records: what every record has, its own fields, and triggers that keep it append-only. */
export async function recordTable(
  knex: Knex,
  name: string,
  fields: (t: Knex.CreateTableBuilder) => void,
): Promise<void> {
  await knex.schema.createTable(name, (t) => {
    t.increments('seq');
    t.text('id').notNullable().unique();
    t.text('property_id').notNullable().references('property.id');
    fields(t);
    t.text('time').notNullable();
    t.text('who').notNullable();
    t.text('note').notNullable();
    t.text('corrects').nullable().unique().references(`${name}.id`);
    t.boolean('void').notNullable().defaultTo(false);
    t.text('saved_at').notNullable();
    t.index(['property_id', 'seq']);
  });
  for (const what of ['update', 'delete'])
    await knex.raw(
      `create trigger ${name}_no_${what} before ${what} on ${name} begin select raise(abort, 'records are append-only'); end`,
    );
}
