import type { APIRoute } from 'astro';
import { Type, type Static } from '@sinclair/typebox';
import type { Origin } from '../../formats/projection.js';
import { validate } from '../../formats/validate.js';
import { readWalked, WALKED_FORMATS } from '../../formats/walked.js';
import { answer, bodyJson, contentOf, json } from '../../server/http.js';

const Body = Type.Object({
  format: Type.Union(WALKED_FORMATS.map((f) => Type.Literal(f))),
  text: Type.Optional(Type.String()),
  base64: Type.Optional(Type.String({ description: 'bytes of a zipped shapefile' })),
  origin: Type.Union([
    Type.Null(),
    Type.Object({ proj: Type.String(), x: Type.Number(), y: Type.Number() }),
  ]),
});

/** Reads a walked file into lines of local metres; keeps nothing. */
export const POST: APIRoute = ({ request }) =>
  answer(async () => {
    const b = validate<Static<typeof Body>>(Body, await bodyJson(request));
    return json(readWalked(b.format, contentOf(b), b.origin as Origin | null));
  });
