import type { APIRoute } from 'astro';
import { jobs, store, storeFile } from '../../../../server/index.js';
import { answer, fault } from '../../../../server/http.js';

export const GET: APIRoute = ({ params, url, request }) =>
  answer(async () => {
    const id = params.id!;
    if (!(await (await store()).head(id))) return fault(404, 'no such property');
    const format = url.searchParams.get('format') ?? 'plan';
    const only = url.searchParams.get('only') ?? undefined;
    const order = { file: storeFile(), id, format, ...(only ? { only } : {}) };
    const { text, type, name } = await jobs().run('export', order, request.signal);
    return new Response(text, {
      headers: {
        'content-type': `${type}; charset=utf-8`,
        'content-disposition': `attachment; filename="${name}"`,
        'cache-control': 'no-store',
      },
    });
  });
