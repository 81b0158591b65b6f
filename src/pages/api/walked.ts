import type { APIRoute } from 'astro';
import { Type, type Static } from '@sinclair/typebox';
import type { Origin } from '../../formats/projection.js';
import { validate } from '../../formats/validate.js';
import { readWalked } from '../../formats/walked.js';
import { answer, bodyJson, json } from '../../server/http.js';

const Body = Type.Object({
  format: Type.Union([Type.Literal('gpx'), Type.Literal('geojson')]),
  text: Type.String(),
  origin: Type.Union([
    Type.Null(),
    Type.Object({ proj: Type.String(), x: Type.Number(), y: Type.Number() }),
  ]),
});

/** Reads a walked file into lines of local metres; keeps nothing. */
export const POST: APIRoute = ({ request }) =>
  answer(async () => {
    const b = validate<Static<typeof Body>>(Body, await bodyJson(request));
    return json(readWalked(b.format, b.text, b.origin as Origin | null));
  });
