import type { APIRoute } from 'astro';
import { jobs, store, storeFile } from '../../../../server/index.js';
import { answer, fault, jsonText } from '../../../../server/http.js';

export const GET: APIRoute = ({ params, request }) =>
  answer(async () => {
    const id = params.id!;
    if (!(await (await store()).head(id))) return fault(404, 'no such property');
    const made = await jobs().run('report', { file: storeFile(), id }, request.signal);
    return jsonText(made['text']!);
  });
