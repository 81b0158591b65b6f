import type { APIRoute } from 'astro';
import sample from '../../../demo/hollin-scar.plan.json?raw';
import season from '../../../demo/hollin-scar.log.json?raw';
import { putDemoLog, type DemoLog } from '../../server/demoLog.js';
import { answer, json, jsonText } from '../../server/http.js';
import { jobs, store, storeFile } from '../../server/index.js';

const { name } = JSON.parse(sample) as { name: string };

/** The invented sample farm: as it stands in this store already where nobody has changed it, else put in anew. */
export const POST: APIRoute = ({ request }) =>
  answer(async () => {
    const there = (await (await store()).list()).find((p) => p.name === name && p.revision === 0);
    if (there) return json({ id: there.id });
    const made = await jobs().run('create', { body: sample, file: storeFile() }, request.signal);
    const { id } = JSON.parse(made['text']!) as { id: string };
    await putDemoLog((await store()).records, id, JSON.parse(season) as DemoLog);
    return jsonText(made['text']!, 201);
  });
