/** Photos of a property, kept by the hash of their content: the same picture twice is kept once. */
import type { Knex } from 'knex';
import { FormatError } from '../formats/error.js';
import { sha256 } from './hash.js';

/** One photo is at most so large, bytes: it is made small before it leaves the browser. */
export const PHOTO_ROOM = 1_500_000;
/** All photos of a property together, bytes. */
export const PROPERTY_ROOM = 300_000_000;

export const HASH = /^[0-9a-f]{64}$/;

/** The photos of one database. */
export function photoStore(db: Knex, room = PROPERTY_ROOM) {
  return {
    /**
     * Keeps a photo; sent twice, it is kept once.
     * @returns null when there is no such property; `full` when its photos have no more room
     * @throws FormatError when it is no JPEG, or not what its hash says
     */
    async put(
      property: string,
      hash: string,
      content: Uint8Array,
    ): Promise<'kept' | 'full' | null> {
      if (!HASH.test(hash)) throw new FormatError('hash', 'is no SHA-256 in hexadecimal');
      if (!(content[0] === 0xff && content[1] === 0xd8 && content[2] === 0xff))
        throw new FormatError('', 'is no JPEG');
      if (sha256(content) !== hash)
        throw new FormatError('hash', 'is not that of what was sent: it was damaged on its way');
      return db.transaction(async (trx) => {
        if (!(await trx('property').where({ id: property }).first('id'))) return null;
        const own = { property_id: property, hash };
        if (await trx('photo').where(own).first('seq')) return 'kept';
        const sum = await trx('photo').where({ property_id: property }).sum({ size: 'size' }).first(); // prettier-ignore
        if (Number(sum?.['size'] ?? 0) + content.length > room) return 'full';
        await trx('photo').insert({ ...own, size: content.length, content: Buffer.from(content), saved_at: new Date().toISOString() }); // prettier-ignore
        return 'kept';
      });
    },
    /** The bytes of a photo; null when it is not there. */
    async get(property: string, hash: string): Promise<Buffer | null> {
      const row = await db('photo').where({ property_id: property, hash }).first('content');
      return (row?.content as Buffer | undefined) ?? null;
    },
  };
}

export type PhotoStore = ReturnType<typeof photoStore>;
