import type { APIRoute } from 'astro';
import { answer, fault, jsonText } from '../../../../server/http.js';
import { summary } from '../../../../server/index.js';

/** A property in a few figures: its lines for a small map, length, cost, open findings. */
export const GET: APIRoute = ({ params }) =>
  answer(async () => {
    const text = await summary(params.id!);
    return text === null ? fault(404, 'no such property') : jsonText(text);
  });
