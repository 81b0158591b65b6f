/** Bringing files in: read here, understood by the server, kept nowhere until the plan names them. */
import type { Plan } from '../../core/plan/schema.js';
import type { Guess, Reference } from '../../formats/reference.js';
import type { Walked } from '../../formats/walked.js';
import { postJson } from './ask.js';

type Origin = Plan['origin'];

/** What was taken for a file's coordinates. */
export type { Guess };
export type Said = Reference | 'guess';

export interface GroundAnswer {
  readonly id: string;
  readonly origin: Origin;
  readonly cols: number;
  readonly rows: number;
  readonly cell_m: number;
  readonly low_m: number;
  readonly high_m: number;
  readonly as: Guess;
}

const suffix = (file: File): string => file.name.toLowerCase().split('.').at(-1) ?? '';

/** Reads a ground file into the store; gives its id and what was read. */
export async function importGround(
  file: File,
  reference: Said,
  origin: Origin | null,
): Promise<GroundAnswer> {
  const kind = suffix(file);
  const format = kind === 'csv' ? 'csv' : /^tiff?$/.test(kind) ? 'tif' : 'asc';
  return postJson<GroundAnswer>('/api/grids', {
    format,
    ...(await content(file, format === 'tif')),
    reference,
    origin,
  });
}

/** Largest file that is sent at all, bytes; the server holds each kind to less. */
const MAX_SENT = 44 * 1024 * 1024;

/** A file as text, or its bytes in base64. */
async function content(file: File, bytes: boolean): Promise<{ text: string } | { base64: string }> {
  if (file.size > MAX_SENT)
    throw new Error(`larger than ${MAX_SENT / 1024 / 1024} MB; cut it to the property first`);
  if (!bytes) return { text: await file.text() };
  const url = await new Promise<string>((done, fail) => {
    const reader = new FileReader();
    reader.onload = () => done(reader.result as string);
    reader.onerror = () => fail(new Error('the file could not be read'));
    reader.readAsDataURL(file);
  });
  return { base64: url.slice(url.indexOf(',') + 1) };
}

/** Reads lines and places into local metres. */
export async function importWalked(file: File, origin: Origin | null, reference: Said = 'guess') {
  const kind = suffix(file);
  const format = kind === 'json' ? 'geojson' : kind;
  return postJson<Walked>('/api/walked', {
    format,
    ...(await content(file, format === 'zip')),
    origin,
    reference,
  });
}

/** Which of the two a file is: heights, or lines and places. */
export async function kindOfFile(file: File): Promise<'ground' | 'walk' | null> {
  const kind = suffix(file);
  if (['asc', 'tif', 'tiff', 'txt'].includes(kind)) return 'ground';
  if (['gpx', 'kml', 'geojson', 'json', 'zip'].includes(kind)) return 'walk';
  if (kind !== 'csv') return null;
  // A table of points has heights, or bare numbers without a heading.
  const head = (await file.slice(0, 400).text()).split('\n')[0]!;
  const cells = head.split(/[,;\t]/).map((c) => c.trim());
  const heights = cells.some((c) => /^(z|h|height|elev|elevation|alt|altitude)$/i.test(c));
  const bare = cells.length >= 3 && cells.every((c) => c !== '' && Number.isFinite(Number(c)));
  return heights || bare ? 'ground' : 'walk';
}
