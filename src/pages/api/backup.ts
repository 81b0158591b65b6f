import { Readable } from 'node:stream';
import type { APIRoute } from 'astro';
import { taken } from '../../server/backup/take.js';
import { zipped } from '../../server/backup/bundle.js';
import { answer, fault } from '../../server/http.js';
import { store, storeFile } from '../../server/index.js';

/** Everything in one zip, or with `property` that one alone. */
export const GET: APIRoute = ({ url }) =>
  answer(async () => {
    const id = url.searchParams.get('property');
    if (id !== null && (await (await store()).revisionOf(id)) === null)
      return fault(404, 'no such property');
    const day = new Date().toISOString().slice(0, 10);
    const name = `anabatic-${id ?? 'everything'}-${day}.zip`;
    return new Response(Readable.toWeb(Readable.from(zipped(taken(storeFile(), id === null ? undefined : [id])), { objectMode: false })) as ReadableStream, {
      headers: {
        'content-type': 'application/zip',
        'content-disposition': `attachment; filename="${name}"`,
        'cache-control': 'no-store',
      },
    });
  }); // prettier-ignore
