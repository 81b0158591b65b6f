import type { Knex } from 'knex';
import { recordTable } from '../recordTable.js';

/** Moves of the shed's stock, orders by line, what was delivered of them, and names of states of the plan. Append-only. */
export async function up(knex: Knex): Promise<void> {
  await recordTable(knex, 'stock_move', (t) => {
    t.text('item').notNullable();
    t.float('quantity').notNullable();
    t.float('length_m').nullable();
    t.text('why').notNullable();
  });
  await recordTable(knex, 'order_line', (t) => {
    t.text('order').notNullable();
    t.text('supplier').notNullable();
    t.text('delivery').notNullable();
    t.text('item').notNullable();
    t.float('quantity').notNullable();
    t.text('unit').notNullable();
    t.float('price').notNullable();
    t.float('tax').notNullable();
  });
  await recordTable(knex, 'delivery', (t) => {
    t.text('order').notNullable();
    t.text('item').notNullable();
    t.float('quantity').notNullable();
    t.text('state').notNullable();
  });
  await recordTable(knex, 'plan_state', (t) => {
    t.text('name').notNullable();
    t.integer('revision').notNullable();
  });
}

/** Forward only: a store is never taken back to an older shape. */
export async function down(): Promise<void> {
  throw new Error('migrations go forward only');
}
