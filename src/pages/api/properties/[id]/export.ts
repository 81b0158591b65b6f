import type { APIRoute } from 'astro';
import { exportAs } from '../../../../server/exports.js';
import { store } from '../../../../server/index.js';
import { answer, fault } from '../../../../server/http.js';

export const GET: APIRoute = ({ params, url }) =>
  answer(async () => {
    const opened = await (await store()).withGround(params.id!);
    if (!opened) return fault(404, 'no such property');
    const { text, type, file } = exportAs(url.searchParams.get('format') ?? 'plan', opened);
    return new Response(text, {
      headers: {
        'content-type': `${type}; charset=utf-8`,
        'content-disposition': `attachment; filename="${file}"`,
        'cache-control': 'no-store',
      },
    });
  });
