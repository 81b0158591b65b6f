/**
 * Records in time: what happened, beside the plan that says what is to stand. A kind of record is its
 * table (a migration), its fields and this entry; endpoints, outbox and corrections are the same for
 * all.
 */
import type { TProperties } from '@sinclair/typebox';
import { Type } from '../../core/base/type.js';
import { DELIVERED, STOCK_MOVES } from '../../core/supplies/basket.js';
import { EVENTS, GROWTHS, READ, REPAIRED, WEATHERS } from '../../core/rounds/logged.js';
import { TOOLS } from '../../core/wire/checks.js';

export interface RecordKind {
  readonly table: string;
  /** Fields beside those that every record has; each a column of its own. */
  readonly fields: TProperties;
}

const words = (max: number) => Type.String({ maxLength: max });
const maybe = <T extends TProperties[string]>(type: T) => Type.Union([Type.Null(), type]);

/** What every record has. */
export const COMMON = {
  id: Type.String({ pattern: '^[A-Za-z0-9-]{8,64}$', description: 'made by the client' }),
  time: Type.String({
    pattern: '^\\d{4}-\\d{2}-\\d{2}T\\d{2}:\\d{2}(:\\d{2}(\\.\\d+)?)?(Z|[+-]\\d{2}:\\d{2})$',
    description: 'when it happened, with its offset',
  }),
  who: words(80),
  note: words(400),
  corrects: Type.Optional(
    Type.String({ maxLength: 64, description: 'id of the record that this one puts right' }),
  ),
  void: Type.Optional(Type.Boolean({ description: 'with `corrects`: that one never was' })),
};

/** Where on the fence: on a line, or a spot with a name. */
const PLACE = {
  line: maybe(words(40)),
  at_m: maybe(Type.Number({ minimum: 0, maximum: 1e7 })),
  spot: maybe(words(80)),
};

const oneOf = (names: readonly string[], description: string) =>
  Type.Union(
    names.map((k) => Type.Literal(k)),
    { description },
  );
const PHOTO = maybe(Type.String({ pattern: '^[0-9a-f]{64}$', description: 'hash of its content' }));

const DAY = Type.String({ pattern: '^\\d{4}-\\d{2}-\\d{2}$', description: 'YYYY-MM-DD' });
const NAMED = Type.String({
  minLength: 1,
  maxLength: 120,
  description: 'a name of the plan of work',
});

const ITEM = Type.String({ minLength: 1, maxLength: 60, description: 'of the price book' });

export const RECORDS: Readonly<Record<string, RecordKind>> = {
  readings: {
    table: 'reading',
    fields: {
      ...PLACE,
      kind: Type.Union(
        READ.map((k) => Type.Literal(k)),
        { description: 'what was read: V on a live strand, on the earth, of the battery; A that pass along the line' }, // prettier-ignore
      ),
      value: Type.Number({ minimum: 0, maximum: 100_000 }),
      unit: Type.Optional(maybe(words(40))),
      towards: Type.Optional(
        maybe(oneOf(['end', 'start'], 'where amps flow: to which end of the line')),
      ),
      weather: Type.Optional(maybe(oneOf(WEATHERS, 'as it was'))),
      growth: Type.Optional(maybe(oneOf(GROWTHS, 'under the lowest strand'))),
    },
  },
  events: {
    table: 'event',
    fields: {
      ...PLACE,
      what: oneOf(EVENTS, 'what happened, or was done'),
      photo: PHOTO,
    },
  },
  repairs: {
    table: 'repair',
    fields: {
      ...PLACE,
      what: oneOf(REPAIRED, 'what was made good'),
      strand: maybe(Type.Integer({ minimum: 1, maximum: 20, description: 'from the ground up' })),
      joint: maybe(words(40)),
      parts: Type.String({
        maxLength: 2000,
        description: 'what was used of the price book, as JSON: {item: quantity}',
      }),
      hours: Type.Number({ minimum: 0, maximum: 1000, description: 'of one person' }),
      cost: Type.Number({ minimum: 0, maximum: 1e6, description: 'of parts and hours, as reckoned then' }), // prettier-ignore
      photo: PHOTO,
    },
  },
  tension: {
    table: 'tension_check',
    fields: {
      ...PLACE,
      strand: Type.Integer({ minimum: 1, maximum: 20, description: 'from the ground up' }),
      wire: words(40),
      tool: Type.Union(
        TOOLS.map((k) => Type.Literal(k)),
        {
          description:
            'pull at mid-bay, taps at returns, spring, note of the bay, scale in the wire',
        },
      ),
      detail: Type.String({ maxLength: 200, description: 'what the tool read, in words' }),
      celsius: Type.Number({ minimum: -60, maximum: 80 }),
      tension_N: Type.Number({ exclusiveMinimum: 0, maximum: 50_000 }),
      error_N: Type.Number({ minimum: 0, maximum: 50_000, description: 'standard error' }),
      at15_N: Type.Number({ exclusiveMinimum: 0, maximum: 50_000, description: 'at 15 degrees C' }),
      expected15_N: maybe(
        Type.Number({
          minimum: 0,
          maximum: 50_000,
          description: 'of that bay, by the plan of the day',
        }),
      ),
    },
  },
  stock: {
    table: 'stock_move',
    fields: {
      item: ITEM,
      quantity: Type.Number({ minimum: -1e6, maximum: 1e6, description: 'in, or out below 0' }),
      length_m: maybe(
        Type.Number({ exclusiveMinimum: 0, maximum: 1e5, description: 'of a coil that was begun' }),
      ),
      why: Type.Union(
        STOCK_MOVES.map((k) => Type.Literal(k)),
        {
          description: 'counted in the shed, built into the fence, used for a repair, lost, or bought without an order', // prettier-ignore
        },
      ),
    },
  },
  orders: {
    table: 'order_line',
    fields: {
      order: Type.String({ minLength: 1, maxLength: 40, description: 'its number or name' }),
      supplier: words(80),
      delivery: words(40),
      item: ITEM,
      quantity: Type.Number({ exclusiveMinimum: 0, maximum: 1e6 }),
      unit: words(12),
      price: Type.Number({ minimum: 0, maximum: 1e7 }),
      tax: Type.Number({ minimum: 0, maximum: 1 }),
    },
  },
  deliveries: {
    table: 'delivery',
    fields: {
      order: words(40),
      item: ITEM,
      quantity: Type.Number({ exclusiveMinimum: 0, maximum: 1e6 }),
      state: Type.Union(
        DELIVERED.map((k) => Type.Literal(k)),
        { description: 'received, short and not to come, or wrong and to be changed' },
      ),
    },
  },
  work: {
    table: 'work_done',
    fields: {
      task: NAMED,
      kind: Type.String({ minLength: 1, maxLength: 40 }),
      day: DAY,
      hours: Type.Number({ exclusiveMinimum: 0, maximum: 5000, description: 'of one person' }),
      share: Type.Number({ exclusiveMinimum: 0, maximum: 1, description: 'of the task' }),
      planned_h: Type.Number({ minimum: 0, maximum: 5000, description: 'that the trade says, of one person' }), // prettier-ignore
      counts: Type.Union([Type.Null(), Type.Boolean()], {
        description: 'for the rate; null: nobody was asked',
      }),
    },
  },
  inspections: {
    table: 'inspection',
    fields: {
      check: NAMED,
      ...PLACE,
      result: Type.Union(
        ['pass', 'fail', 'note'].map((k) => Type.Literal(k)),
        { description: 'as it was found' },
      ),
      photo: PHOTO,
    },
  },
  loads: {
    table: 'load_tick',
    fields: {
      day: DAY,
      item: NAMED,
      kind: words(40),
      state: Type.Union(
        ['loaded', 'forgotten'].map((k) => Type.Literal(k)),
        { description: 'on the trailer; or missing at the fence, for which kind of work' },
      ),
    },
  },
  states: {
    table: 'plan_state',
    fields: {
      name: Type.String({ minLength: 1, maxLength: 60 }),
      revision: Type.Integer({ minimum: 0, maximum: 1e9 }),
    },
  },
};

/** What a record of a kind looks like at the door. */
export const recordSchema = ({ fields }: RecordKind) =>
  Type.Object({ ...COMMON, ...fields }, { additionalProperties: false });
