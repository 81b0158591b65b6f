/** A backup as one zip: parts in open formats, a README, and a list with the hash of each part. */
import { strToU8, unzipSync, Zip, ZipDeflate, ZipPassThrough } from 'fflate';
import { Type } from '../../core/base/type.js';
import { FormatError, parseJson } from '../../formats/error.js';
import { validate } from '../../formats/validate.js';
import { sha256 } from '../hash.js';

/** A file of the bundle. */
export interface Part {
  readonly path: string;
  readonly bytes: Uint8Array;
  /** Made from other parts for people and other programs: a restore does without it. */
  readonly derived?: boolean;
}

const LIST = 'bundle.json';
const FORMAT = 'anabatic-bundle';
const VERSION = 1;
/** Most that a bundle may unpack to, and most parts of it: a farm with its photos is far below. */
const MOST_BYTES = 2 * 1024 ** 3;
const MOST_PARTS = 100_000;
const PATH = /^[A-Za-z0-9][A-Za-z0-9._-]*(\/[A-Za-z0-9][A-Za-z0-9._-]*){1,3}$/;

const ListSchema = Type.Object({
  format: Type.Literal(FORMAT),
  version: Type.Integer({ minimum: 1 }),
  made_at: Type.String({ maxLength: 40 }),
  parts: Type.Record(
    Type.String(),
    Type.Object({
      sha256: Type.String({ pattern: '^[0-9a-f]{64}$' }),
      derived: Type.Optional(Type.Boolean()),
    }),
  ),
});

/** The bytes of the zip, piece by piece: no more than one part is held at a time. */
export async function* zipped(parts: Iterable<Part>, made_at = new Date()): AsyncGenerator<Uint8Array> {
  const out: Uint8Array[] = [];
  let failed: Error | null = null;
  const zip = new Zip((error, chunk) => {
    if (error) failed = error;
    else out.push(chunk);
  });
  const list: Record<string, { sha256: string; derived?: true }> = {};
  const put = (path: string, bytes: Uint8Array) => {
    // What is packed already would only cost time.
    const file = path.endsWith('.jpg') ? new ZipPassThrough(path) : new ZipDeflate(path, { level: 6 });
    file.mtime = made_at;
    zip.add(file);
    file.push(bytes, true);
  };
  for (const { path, bytes, derived } of parts) {
    list[path] = { sha256: sha256(bytes), ...(derived ? { derived } : {}) };
    put(path, bytes);
    if (failed) throw failed as Error;
    yield* out.splice(0);
    // Others are answered between two parts.
    await new Promise((done) => setImmediate(done));
  }
  put('README.txt', strToU8(README));
  put(LIST, strToU8(JSON.stringify({ format: FORMAT, version: VERSION, made_at: made_at.toISOString(), parts: list }, null, 1)));
  zip.end();
  if (failed) throw failed as Error;
  yield* out.splice(0);
} // prettier-ignore

/**
 * The parts of a bundle, each as its hash says.
 * @throws FormatError for a broken archive, one that swells, a part that is damaged or missing, or a bundle of a later version
 */
export function unzipped(zip: Uint8Array): Map<string, Part> {
  let [sum, count] = [0, 0];
  let files: Record<string, Uint8Array>;
  try {
    files = unzipSync(zip, {
      filter: ({ originalSize }) => {
        sum += originalSize;
        if (sum > MOST_BYTES) throw new FormatError('', 'unpacks to more than 2 GB');
        if (++count > MOST_PARTS) throw new FormatError('', 'holds more than 100,000 parts');
        return true;
      },
    });
  } catch (error) {
    if (error instanceof FormatError) throw error;
    throw new FormatError('', `not a sound zip archive: ${(error as Error).message}`);
  }
  const text = files[LIST];
  if (!text) throw new FormatError('', `there is no ${LIST} in this archive: it is no backup of this program`);
  const raw = parseJson(Buffer.from(text).toString('utf8'));
  const { version } = (raw ?? {}) as { version?: unknown };
  if (typeof version === 'number' && version > VERSION)
    throw new FormatError(LIST, `was written by a later version of the program (${version}; it reads up to ${VERSION} here)`);
  const { parts } = validate<{ parts: Record<string, { sha256: string; derived?: boolean }> }>(ListSchema, raw, LIST);
  return new Map(
    Object.entries(parts).map(([path, { sha256: hash, derived }]) => {
      if (!PATH.test(path)) throw new FormatError(path, 'is no place for a part');
      const bytes = Object.hasOwn(files, path) ? files[path] : undefined;
      if (!bytes) throw new FormatError(path, 'is missing from the archive');
      if (sha256(bytes) !== hash) throw new FormatError(path, 'is damaged: it is not what its hash says');
      return [path, { path, bytes, ...(derived ? { derived } : {}) }];
    }),
  );
} // prettier-ignore

const README = `A backup of properties, written by Anabatic.

Each folder is one property:
  property.json         its id and name
  plan.json             the plan as it stands, with its ground: a plan file, which the program also opens by itself
  map.geojson           lines, gates and energisers for any map program
  prices.csv            the price book, for a spreadsheet
  history.ndjson        every change that was made, one a line: a JSON patch and its inverse
  snapshots.ndjson      the plan as it stood now and then, so that the history need not be followed from its beginning
  grids/                the ground, as heights on a grid (JSON)
  records/NAME.ndjson   what happened, one record a line: readings, events, repairs, checks, stock, orders, work
  records/NAME.csv      the same for a spreadsheet
  photos/               pictures, named by the SHA-256 of their content
  monitors.ndjson       devices that report by themselves; of their tokens only the hash

bundle.json lists every part with its SHA-256. What is marked "derived" there is for people and other programs:
a restore is made from the rest. To bring it all back: anabatic restore FILE, or on the first page.
`;
