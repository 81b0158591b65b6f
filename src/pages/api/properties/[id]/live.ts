import type { APIRoute } from 'astro';
import { visitorOf } from '../../../../server/access/gate.js';
import { answer, fault } from '../../../../server/http.js';
import { live, store } from '../../../../server/index.js';

/** So often a word is sent where nothing happens, and it is looked whether who listens still may, ms. */
const BEAT_MS = 20_000;

/**
 * Server-sent events for whoever has the property open: "changes" with those that were saved, as GET changes gives them;
 * "moved" with "plan 57" where they are too long for that, or with the kind of records that came in.
 */
export const GET: APIRoute = ({ params, request, cookies, locals }) =>
  answer(async () => {
    const id = params.id!;
    const { people, revisionOf } = await store();
    if ((await revisionOf(id)) === null) return fault(404, 'no such property');
    let end = (): void => undefined;
    const stream = new ReadableStream<Uint8Array>({
      start(to) {
        const say = (text: string) => to.enqueue(new TextEncoder().encode(text));
        const leave = live.listen(id, (bytes) => to.enqueue(bytes));
        if (!leave) {
          // A browser asks again after this time, and lives by looking now and then until then.
          say('retry: 60000\n\n');
          return to.close();
        }
        say('retry: 2000\n\n');
        let over = false;
        end = () => {
          over = true;
          clearInterval(beat);
          leave();
        };
        const still = async () => {
          // Shut out, or a link taken back: by this process or by another one.
          if (await visitorOf(people, cookies, locals.from).catch(() => null)) return say(': here\n\n');
          if (!over) to.close();
          end();
        };
        const beat = setInterval(() => !over && void still().catch(() => end()), BEAT_MS);
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
  }); // prettier-ignore
