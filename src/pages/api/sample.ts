import { isDeepStrictEqual } from 'node:util';
import type { APIRoute } from 'astro';
import type { Plan } from '../../core/plan/schema.js';
import sample from '../../../demo/hollin-scar.plan.json?raw';
import season from '../../../demo/hollin-scar.log.json?raw';
import { putDemoLog, type DemoLog } from '../../server/demoLog.js';
import { answer, json, jsonText } from '../../server/http.js';
import { jobs, store, storeFile } from '../../server/index.js';

const farm = JSON.parse(sample) as Plan;
/** What tells the sample from a property that merely has its name. */
const OWN = ['lines', 'gates', 'energisers', 'things'] as const;
const same = (plan: Plan): boolean => OWN.every((k) => isDeepStrictEqual(plan[k], farm[k]));

/** The invented sample farm: as it stands in this store already where nobody has changed it, else put in anew. */
export const POST: APIRoute = ({ request }) =>
  answer(async () => {
    const own = await store();
    for (const { id, name, revision } of await own.list()) {
      if (name !== farm.name || revision > 0 || !same((await own.head(id))!.plan)) continue;
      // A copy that somebody brought in has no season.
      const log = await own.records.newest(id, 'readings', 1);
      if (log && log.records.length > 0) return json({ id });
    }
    const made = await jobs().run('create', { body: sample, file: storeFile() }, request.signal);
    const { id } = JSON.parse(made['text']!) as { id: string };
    await putDemoLog(own.records, id, JSON.parse(season) as DemoLog);
    return jsonText(made['text']!, 201);
  });
