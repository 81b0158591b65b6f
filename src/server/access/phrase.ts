/** Pass phrases: what is kept of one (scrypt, with its own salt and cost), and whether one is right. */
import { randomBytes, scrypt, timingSafeEqual, type ScryptOptions } from 'node:crypto';
import { FormatError } from '../../formats/error.js';

/** Shortest and longest, characters. Twelve letters that are no word of a list outlast guessing at one door. */
export const PHRASE = { least: 12, most: 200 } as const;

/**
 * What one try costs: 2^15 blocks of 1 kB, three times over, 32 MB. Of the equal choices that the OWASP Password Storage
 * Cheat Sheet (2024) lists for scrypt, the one that a small server has the memory for.
 */
const COST = { N: 2 ** 15, r: 8, p: 3 } as const;
const SALT = 16;
const LENGTH = 32;

const derived = (phrase: string, salt: Buffer, { N, r, p }: { N: number; r: number; p: number }) =>
  new Promise<Buffer>((done, fail) => {
    const options: ScryptOptions = { N, r, p, maxmem: 256 * N * r };
    // The same letters however the keyboard composes them.
    scrypt(phrase.normalize('NFKC'), salt, LENGTH, options, (error, key) =>
      error ? fail(error) : done(key),
    );
  });

/** What is kept of a phrase: "scrypt$N$r$p$salt$key". @throws FormatError when it is too short or too long */
export async function kept(phrase: string): Promise<string> {
  if ([...phrase].length < PHRASE.least)
    throw new FormatError('/phrase', `needs at least ${PHRASE.least} characters: four words, say`);
  if (phrase.length > PHRASE.most)
    throw new FormatError('/phrase', `may have at most ${PHRASE.most} characters`);
  const salt = randomBytes(SALT);
  const key = await derived(phrase, salt, COST);
  return ['scrypt', COST.N, COST.r, COST.p, salt.toString('base64'), key.toString('base64')].join('$'); // prettier-ignore
}

/** Whether a phrase is the one that was kept, at the cost that it was kept with. */
export async function isRight(phrase: string, keptAs: string): Promise<boolean> {
  const [, N, r, p, salt, key] = keptAs.split('$');
  const wanted = Buffer.from(key ?? '', 'base64');
  const found = await derived(phrase.slice(0, PHRASE.most), Buffer.from(salt ?? '', 'base64'), {
    N: Number(N),
    r: Number(r),
    p: Number(p),
  });
  return wanted.length === found.length && timingSafeEqual(wanted, found);
}
