/** What is bought: prices of the property, rows changed by hand, items of its own. */
import { Type } from '../../base/type.js';
import { byId, closed, words } from '../../plan/schemaParts.js';

const date = Type.String({ pattern: '^\\d{4}-\\d{2}-\\d{2}$', description: 'a day, YYYY-MM-DD' });
/** An item of the price book. */
const byItem = <T extends Parameters<typeof Type.Array>[0]>(item: T) =>
  Type.Record(Type.String({ pattern: '^[A-Za-z0-9][A-Za-z0-9_.-]{0,59}$' }), item, closed);

export const QuoteSchema = Type.Object(
  {
    price: Type.Number({ minimum: 0, maximum: 1e7, description: 'of one, without tax' }),
    on: date,
    supplier: Type.Optional(words(80)),
    tax: Type.Optional(
      Type.Number({ minimum: 0, maximum: 1, description: 'share; absent: that of the property' }),
    ),
    pack: Type.Optional(
      Type.Number({ exclusiveMinimum: 0, maximum: 1e5, description: 'sold by so many' }),
    ),
  },
  { ...closed, description: 'what somebody asked for an item on a day; the newest counts' },
);

export const SupplyRowSchema = Type.Object(
  {
    quantity: Type.Optional(Type.Number({ minimum: 0, maximum: 1e6 })),
    out: Type.Optional(Type.Literal(true, { description: 'not to be bought' })),
    note: Type.Optional(words(400)),
  },
  { ...closed, description: 'a row of the supplies as changed by hand' },
);

export const OwnItemSchema = Type.Object(
  {
    name: Type.String({ minLength: 1, maxLength: 80 }),
    per: Type.String({ minLength: 1, maxLength: 12, description: 'what one is' }),
    quantity: Type.Number({ minimum: 0, maximum: 1e6 }),
  },
  { ...closed, description: 'an item that the catalogue does not have' },
);

export const keys = {
  plan: {
    line: {},
    property: {
      book: Type.Optional(byItem(Type.Array(QuoteSchema, { minItems: 1, maxItems: 60 }))),
      supplyRows: Type.Optional(byItem(SupplyRowSchema)),
      ownItems: Type.Optional(byId(OwnItemSchema)),
    },
  },
  report: { line: {}, property: {} },
} as const;
