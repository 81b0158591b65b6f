import type { APIRoute } from 'astro';
import { Type } from '@sinclair/typebox';
import { validate } from '../../../../formats/validate.js';
import { PatchSchema } from '../../../../formats/patch.js';
import type { Proposed } from '../../../../formats/change.js';
import { store } from '../../../../server/index.js';
import { answer, bodyJson, fault, json } from '../../../../server/http.js';

const Body = Type.Object(
  {
    changeId: Type.String({ pattern: '^[A-Za-z0-9-]{8,64}$' }),
    tab: Type.String({ pattern: '^[A-Za-z0-9-]{4,64}$' }),
    base: Type.Integer({ minimum: 0 }),
    kind: Type.Union([Type.Literal('do'), Type.Literal('undo'), Type.Literal('redo')]),
    words: Type.String({ maxLength: 200 }),
    patch: PatchSchema,
    inverse: PatchSchema,
  },
  { additionalProperties: false },
);

export const GET: APIRoute = ({ params, url }) =>
  answer(async () => {
    const since = Number(url.searchParams.get('since') ?? 0);
    if (!Number.isInteger(since) || since < 0) return fault(422, 'must be a revision', 'since');
    return json(await (await store()).changesSince(params.id!, since));
  });

/** Saves a change: 200 when saved or merged, 409 with the other changes when they touch. */
export const POST: APIRoute = ({ params, request }) =>
  answer(async () => {
    const change = validate<Proposed>(Body, await bodyJson(request));
    const result = await (await store()).commit(params.id!, change);
    if (!result) return fault(404, 'no such property');
    return json(result, result.status === 'saved' ? 200 : 409);
  });
