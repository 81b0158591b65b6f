import type { Knex } from 'knex';

/** Moves of the shed's stock, orders by line, what was delivered of them, and names of states of the plan. Append-only. */
export async function up(knex: Knex): Promise<void> {
  await table(knex, 'stock_move', (t) => {
    t.text('item').notNullable();
    t.float('quantity').notNullable();
    t.float('length_m').nullable();
    t.text('why').notNullable();
  });
  await table(knex, 'order_line', (t) => {
    t.text('order').notNullable();
    t.text('supplier').notNullable();
    t.text('delivery').notNullable();
    t.text('item').notNullable();
    t.float('quantity').notNullable();
    t.text('unit').notNullable();
    t.float('price').notNullable();
    t.float('tax').notNullable();
  });
  await table(knex, 'delivery', (t) => {
    t.text('order').notNullable();
    t.text('item').notNullable();
    t.float('quantity').notNullable();
    t.text('state').notNullable();
  });
  await table(knex, 'plan_state', (t) => {
    t.text('name').notNullable();
    t.integer('revision').notNullable();
  });
}

async function table(
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

/** Forward only: a store is never taken back to an older shape. */
export async function down(): Promise<void> {
  throw new Error('migrations go forward only');
}
