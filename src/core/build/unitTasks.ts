/** The work on one energiser, and on what it feeds. */
import { sum } from '../base/numbers.js';
import { figure, recordOf } from '../plan/catalogue.js';
import { planLength } from '../plan/geometry.js';
import type { Energiser } from '../plan/schema.js';
import type { TaskKind } from './kinds.js';
import type { Made } from './made.js';
import { amount, waits, whole, type Draft } from './task.js';

/** A unit: its earth, its leads, its place; switched on when all that it feeds is tied. */
export function unitTasks(e: Energiser, made: Made, lines: ReadonlySet<string>): Draft[] {
  const { cat, plan } = made;
  const parts = made.counted[e.id] ?? [];
  const of = (test: RegExp) => parts.filter(([item]) => test.test(item));
  const rods = of(/^(earth\.|diverter|wire\.)/);
  const lead = of(/^(cable|clamp|crimp)/);
  const mount = parts.filter((row) => !rods.includes(row) && !lead.includes(row) && row[1] > 0);
  const group = made.groups.find((g) => g.energisers.some((x) => x.id === e.id));
  const fed = (group?.lines ?? []).filter((id) => lines.has(`jumpers:${id}`));
  const solar = recordOf(cat.energisers, e.model).supply === 'solar';
  const one = (kind: TaskKind): Draft => whole(kind, e.name, null, e.id);
  const rodCount = sum(rods.filter(([item]) => item === 'earth.rod').map(([, n]) => n));
  const km = sum(fed.map((id) => planLength(plan.lines[id]!))) / 1000;
  const out: Draft[] = [
    { ...one('rods'), amounts: [amount(rodCount, 'rods', 'build.rodHours', cat)], parts: rods },
    {
      ...one('mount'),
      amounts: [amount(1, 'unit', 'build.mountHours', cat)],
      parts: mount,
      after: [],
    },
    {
      ...one('lead'),
      amounts: [amount(1, 'unit', 'build.leadHours', cat)],
      parts: lead,
      after: waits(
        `rods:${e.id}`,
        `mount:${e.id}`,
        ...(e.line === null ? [] : [`again:${e.line}`]),
      ),
    },
  ];
  if (solar && !e.plate) out.push({ ...one('charge'), after: waits(`mount:${e.id}`) });
  out.push({
    ...one('live'),
    amounts: [amount(1, 'time', 'build.fixHours', cat)],
    after: [
      ...waits(`lead:${e.id}`),
      ...(solar && !e.plate
        ? [{ id: `charge:${e.id}`, wait_h: figure(cat, 'build.chargeHours'), why: 'it charges in the sun' }] // prettier-ignore
        : []),
      // The fence is not live before whoever meets it can know.
      ...waits(...fed.flatMap((id) => [`jumpers:${id}`, `signs:${id}`, `rods:${id}`])),
    ],
  });
  out.push({
    ...one('prove'),
    amounts: [
      amount(fed.length + 1, 'readings', 'build.proveMinutes', cat),
      amount(km, 'km to walk', 'build.walkHours', cat),
    ],
    after: waits(`live:${e.id}`),
  });
  return out;
}
