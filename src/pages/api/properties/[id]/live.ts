import type { APIRoute } from 'astro';
import { answer, fault } from '../../../../server/http.js';
import { live, store } from '../../../../server/index.js';

/** So often a word is sent where nothing happens, ms: what stands between must not take the line for dead. */
const BEAT_MS = 25_000;

/** Server-sent events: "moved" with what has moved ("plan", or a kind of record), for whoever has the property open. */
export const GET: APIRoute = ({ params, request }) =>
  answer(async () => {
    const id = params.id!;
    if ((await (await store()).revisionOf(id)) === null) return fault(404, 'no such property');
    const words = new TextEncoder();
    let end = (): void => undefined;
    const stream = new ReadableStream<Uint8Array>({
      start(to) {
        const say = (text: string) => to.enqueue(words.encode(text));
        const leave = live.listen(id, (what) => say(`event: moved\ndata: ${what}\n\n`));
        if (!leave) {
          // A browser asks again after this time, and lives by looking now and then until then.
          say('retry: 60000\n\n');
          return to.close();
        }
        say('retry: 2000\n\n');
        const beat = setInterval(() => say(': here\n\n'), BEAT_MS);
        end = () => {
          clearInterval(beat);
          leave();
        };
        request.signal.addEventListener('abort', end);
      },
      cancel: () => end(),
    });
    const headers = {
      'content-type': 'text/event-stream',
      // Not pressed on the way: each word is wanted at once.
      'cache-control': 'no-store, no-transform',
      'x-accel-buffering': 'no',
    };
    return new Response(stream, { headers });
  });
