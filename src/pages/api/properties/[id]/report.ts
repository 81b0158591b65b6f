import type { APIRoute } from 'astro';
import { jobs, store, storeFile } from '../../../../server/index.js';
import { answer, fault, jsonText } from '../../../../server/http.js';

/** With `?mends=0` no mend is tried, which takes most of the time. */
export const GET: APIRoute = ({ params, request, url }) =>
  answer(async () => {
    const id = params.id!;
    if (!(await (await store()).head(id))) return fault(404, 'no such property');
    const made = await jobs().run(
      'report',
      { file: storeFile(), id, ...(url.searchParams.get('mends') === '0' ? { mends: 0 } : {}) },
      request.signal,
    );
    return jsonText(made['text']!);
  });
