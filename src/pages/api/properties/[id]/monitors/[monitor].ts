import type { APIRoute } from 'astro';
import { store } from '../../../../../server/index.js';
import { answer, fault, json } from '../../../../../server/http.js';

/** Takes a monitor's token back: what it reported stays, it is heard no more. */
export const DELETE: APIRoute = ({ params }) =>
  answer(async () => {
    const done = await (await store()).monitors.revoke(params.id!, params.monitor!);
    return done ? json({ revoked: true }) : fault(404, 'no such monitor');
  });
