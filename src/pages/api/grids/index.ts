import type { APIRoute } from 'astro';
import { Type, type Static } from '@sinclair/typebox';
import { readGround, readGroundTiff, type Reference } from '../../../formats/ground.js';
import type { Origin } from '../../../formats/projection.js';
import { validate } from '../../../formats/validate.js';
import { store } from '../../../server/index.js';
import { answer, bodyJson, bytesOf, contentOf, json, textOf } from '../../../server/http.js';
import { heightRange } from '../../../core/terrain/relief.js';

const OriginSchema = Type.Object({ proj: Type.String(), x: Type.Number(), y: Type.Number() });
const Body = Type.Object({
  format: Type.Union([Type.Literal('asc'), Type.Literal('csv'), Type.Literal('tif')]),
  text: Type.Optional(Type.String()),
  base64: Type.Optional(Type.String({ description: 'bytes of a GeoTIFF' })),
  reference: Type.Union([
    Type.Literal('geographic'),
    Type.Literal('local'),
    Type.Object({ projection: Type.String({ maxLength: 300 }) }),
  ]),
  origin: Type.Union([Type.Null(), OriginSchema]),
});

/** Reads a ground file and keeps its grid; answers its id, the origin and what was read. */
export const POST: APIRoute = ({ request }) =>
  answer(async () => {
    const b = validate<Static<typeof Body>>(Body, await bodyJson(request));
    const content = contentOf(b);
    const reference = b.reference as Reference;
    const origin = b.origin as Origin | null;
    const placed =
      b.format === 'tif'
        ? await readGroundTiff(bytesOf(content), reference, origin)
        : readGround(b.format, textOf(content), reference, origin);
    const id = await (await store()).putGrid(placed.grid);
    const { cols, rows, cell_m } = placed.grid;
    const [low_m, high_m] = heightRange(placed.grid);
    return json({ id, origin: placed.origin, cols, rows, cell_m, low_m, high_m });
  });
