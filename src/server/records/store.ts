/** Records of every kind: put in once, corrected by further ones, read in the order they came. */
import type { Knex } from 'knex';
import { FormatError } from '../../formats/error.js';
import { validate } from '../../formats/validate.js';
import { RECORDS, recordSchema, type RecordKind } from './kinds.js';

export interface Record {
  readonly id: string;
  readonly time: string;
  readonly corrects?: string;
  readonly void?: boolean;
  readonly [field: string]: unknown;
}
/** A record as it is kept: `seq` counts up as records come in. */
export type Kept = Record & { readonly seq: number; readonly saved_at: string };

export interface Page {
  readonly records: readonly Kept[];
  readonly more: boolean;
}

const PAGE = 500;
const MOST_NEWEST = 5000;

// A schema is compiled by its identity: one for each kind.
const schemas = Object.fromEntries(
  Object.entries(RECORDS).map(([name, kind]) => [name, recordSchema(kind)]),
);

/**
 * The record store over one database.
 * @param saved is told of which property and kind a record was kept
 */
export function recordStore(
  db: Knex,
  saved: (property: string, kind: string) => void = () => undefined,
) {
  const kindNamed = (name: string): RecordKind => {
    if (!Object.hasOwn(RECORDS, name))
      throw new FormatError('kind', `there are ${Object.keys(RECORDS).join(', ')}`);
    return RECORDS[name]!;
  };

  return {
    /**
     * Keeps a record; sent twice, it is kept once.
     * @param told who tells it, where people sign in: stands in `who`, beside whom it names there
     * @returns null when there is no such property
     * @throws FormatError when it does not fit, or corrects what is not there or was corrected already
     */
    async put(property: string, kind: string, value: unknown, told = ''): Promise<Kept | null> {
      const named = kindNamed(kind);
      const { table } = named;
      const record = validate<Record>(schemas[kind]!, value);
      if (Number.isNaN(Date.parse(record.time))) throw new FormatError('/time', 'is no time');
      if (record.void && record.corrects === undefined)
        throw new FormatError('/void', 'says which record it takes back with "corrects"');
      const out = await db.transaction(async (trx) => {
        if (!(await trx('property').where({ id: property }).first('id'))) return null;
        const own = await trx(table).where({ id: record.id }).first();
        if (own) {
          if (own.property_id !== property)
            throw new FormatError('/id', 'belongs to a record of another property');
          return fromRow(named, own as Record);
        }
        if (record.corrects !== undefined) {
          const known = await trx(table)
            .where({ id: record.corrects, property_id: property })
            .first('id');
          if (!known) throw new FormatError('/corrects', 'there is no such record');
          const done = await trx(table).where({ corrects: record.corrects }).first('id');
          if (done)
            throw new FormatError('/corrects', `was put right already, by ${done.id as string}`);
        }
        const saved_at = new Date().toISOString();
        await trx(table).insert({ ...record, who: bothNamed(record, told), property_id: property, saved_at }); // prettier-ignore
        return fromRow(named, (await trx(table).where({ id: record.id }).first()) as Record);
      });
      if (out) saved(property, kind);
      return out;
    },

    /**
     * Keeps many records that nobody has sent before, all or none.
     * @throws FormatError when one does not fit
     */
    async putAll(property: string, all: readonly { readonly kind: string; readonly record: object }[]): Promise<void> {
      const rows = all.map(({ kind, record }) => {
        const named = kindNamed(kind);
        return { table: named.table, row: validate<Record>(schemas[kind]!, record) };
      });
      const saved_at = new Date().toISOString();
      await db.transaction(async (trx) => {
        for (const { table, row } of rows) await trx(table).insert({ ...row, property_id: property, saved_at });
      });
    }, // prettier-ignore

    /**
     * The newest so many records, oldest first. Corrections come in after what they correct, so that whatever of these
     * was put right has its correction among them.
     */
    async newest(property: string, kind: string, count: number): Promise<Page | null> {
      const named = kindNamed(kind);
      if (!(await db('property').where({ id: property }).first('id'))) return null;
      const rows = await db(named.table)
        .where({ property_id: property })
        .orderBy('seq', 'desc')
        .limit(Math.min(count, MOST_NEWEST));
      return { records: rows.reverse().map((row: Record) => fromRow(named, row)), more: false };
    },

    /**
     * Records that came in after `since`, oldest first, corrections among them; null when there is no
     * such property.
     */
    async since(property: string, kind: string, since: number, limit = PAGE): Promise<Page | null> {
      const named = kindNamed(kind);
      const { table } = named;
      if (!(await db('property').where({ id: property }).first('id'))) return null;
      const rows = await db(table)
        .where({ property_id: property })
        .andWhere('seq', '>', since)
        .orderBy('seq')
        .limit(limit + 1);
      return {
        records: rows.slice(0, limit).map((row: Record) => fromRow(named, row)),
        more: rows.length > limit,
      };
    },
  };
}

export type RecordStore = ReturnType<typeof recordStore>;

/** Who it was and who told it, in the room that a name has. */
function bothNamed(record: Record, told: string): string {
  const who = String(record['who']).trim();
  if (told === '' || who === told) return who;
  return (who === '' ? told : `${who.slice(0, 69 - told.length)} (told by ${told})`).slice(0, 80);
}

/** Fields that are true or false; the store keeps them as 1 and 0. */
const trueOrFalse = ({ fields }: RecordKind): string[] =>
  Object.entries(fields).flatMap(([name, schema]) => {
    const kinds = [schema, ...((schema['anyOf'] as { type?: string }[] | undefined) ?? [])];
    return kinds.some((k) => k.type === 'boolean') ? [name] : [];
  });

function fromRow(kind: RecordKind, row: Record & { property_id?: string }): Kept {
  const { corrects, void: taken, ...rest } = row;
  delete rest['property_id'];
  const said = trueOrFalse(kind).filter((name) => typeof rest[name] === 'number');
  return {
    ...rest,
    ...Object.fromEntries(said.map((name) => [name, rest[name] === 1])),
    ...(corrects === null || corrects === undefined ? {} : { corrects }),
    ...(taken ? { void: true } : {}),
  } as Kept;
}
