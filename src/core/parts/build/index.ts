/** How the work is planned stands in the plan and is undone with it; what was done are records. */
import type { Door, Part } from '../part.js';
import { keys } from './keys.js';

export const build = {
  id: 'build' as const,
  keys,
  check({ plan, say }: Door): void {
    const { crew = {}, own = {}, from = '00:00', to = '24:00' } = plan.build ?? {};
    for (const [table, rows] of Object.entries({ crew, own }))
      for (const [key, row] of Object.entries(rows))
        if (row.id !== key) say(`/build/${table}/${key}/id`, 'is not the key that it stands under');
    if (to <= from) say('/build/to', 'the day ends before it begins');
    for (const [item, { from: first, to: last }] of Object.entries(plan.build?.machines ?? {}))
      if (first && last && last < first)
        say(`/build/machines/${item}/to`, 'the hire ends before it begins');
  },
} satisfies Part;
