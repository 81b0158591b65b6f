/** What leaves the shed on a day: every part, tool and consumable of its tasks, what it weighs, in the order of unloading. */
import { sum } from '../base/numbers.js';
import { figure, type Catalogue } from '../plan/catalogue.js';
import type { Items } from '../supplies/takeoff.js';
import type { WireCut } from '../supplies/wireCuts.js';
import { kindOf, massOf, nameOf, type Caution } from './kinds.js';
import { shareOf } from './parts.js';
import type { PlannedTask, Shift } from './shifts.js';

/** A row of the list. */
export interface Load {
  /** Item of the price book, carried thing, or a coil: `coil.ht25.3`. */
  readonly item: string;
  readonly name: string;
  readonly n: number;
  /** Metres, or pieces. */
  readonly unit: 'm' | 'each' | 'bag' | 't';
  /** What the row weighs, kg; null: not known. */
  readonly kg: number | null;
  /** Where it is put down: by task, how much, and the places along the line, m. */
  readonly drops: readonly Drop[];
  readonly why: 'part' | 'tool' | 'person';
}

export interface Drop {
  readonly task: string;
  readonly line: string | null;
  readonly n: number;
  readonly at_m: readonly number[];
}

export interface DayLoad {
  readonly day: string;
  readonly tasks: readonly DayTask[];
  readonly people: readonly string[];
  readonly loads: readonly Load[];
  /** Of all that has a weight, kg. */
  readonly kg: number;
  readonly carries_kg: number;
  /** Trips that the weight asks for. */
  readonly trips: number;
  readonly safety: readonly Caution[];
}

/** A task as far as it is done on a day. */
export interface DayTask {
  readonly task: PlannedTask;
  readonly shifts: readonly Shift[];
  readonly part: readonly [number, number];
  readonly parts: Items;
}

/** Each of the crew has these. */
const EACH = ['tool.eyes', 'tool.gloves', 'water'] as const;
/** Every day has these. */
const ALWAYS = ['firstaid', 'phone'] as const;

/** The tasks of a day, in their order, with what each takes on that day. */
export function dayTasks(tasks: readonly PlannedTask[], day: string): DayTask[] {
  return tasks
    .flatMap((task): DayTask[] => {
      const shifts = task.shifts.filter((s) => s.day === day);
      if (shifts.length === 0) return [];
      const part: [number, number] = [shifts[0]!.part[0], shifts.at(-1)!.part[1]];
      return [{ task, shifts, part, parts: shareOf(task.parts, part, [task.from_m, task.to_m]) }];
    })
    .sort((a, b) => a.shifts[0]!.from.localeCompare(b.shifts[0]!.from));
}

/** How an item is counted as it is carried. */
function unitOf(item: string, cat: Catalogue): Load['unit'] {
  if (item.startsWith('wire.') || item.startsWith('reel.')) return 'm';
  const per = cat.prices[item]?.per;
  return per === 'm' || per === 'bag' || per === 't' ? per : 'each';
}

/**
 * The list of a day.
 * @param cuts the coils as they are cut, where they are: wire then goes out by the coil
 */
export function loadOf(
  tasks: readonly PlannedTask[],
  day: string,
  cat: Catalogue,
  cuts: readonly WireCut[] = [],
): DayLoad {
  const today = dayTasks(tasks, day);
  const rows = new Map<string, { n: number; drops: Drop[]; why: Load['why'] }>();
  const add = (item: string, why: Load['why'], drop: Drop) => {
    const row = rows.get(item);
    if (!row) rows.set(item, { n: drop.n, drops: [drop], why });
    else {
      row.n += drop.n;
      row.drops.push(drop);
    }
  };
  for (const { task, parts } of today) {
    const own = new Map<string, { n: number; at: Set<number> }>();
    for (const [item, n, at_m] of parts) {
      let row = own.get(item);
      if (!row) own.set(item, (row = { n: 0, at: new Set() }));
      row.n += n;
      if (at_m !== undefined) row.at.add(at_m);
    }
    for (const [item, { n, at }] of own)
      add(item, 'part', { task: task.id, line: task.line, n, at_m: [...at].sort((a, b) => a - b) });
  }
  // A tool goes out once for those that work side by side: as many as the task that wants most of it.
  const tools = new Map<string, Drop>();
  for (const { task } of today) {
    const machine = task.machine === null ? [] : [[task.machine, 1] as const];
    for (const [item, n] of [...kindOf(task.kind).tools, ...machine])
      if (n > (tools.get(item)?.n ?? 0)) tools.set(item, { task: task.id, line: task.line, n, at_m: [] }); // prettier-ignore
  }
  for (const [item, drop] of tools) add(item, 'tool', drop);
  const people = [...new Set(today.flatMap((t) => t.shifts.flatMap((s) => s.who)))];
  for (const item of EACH)
    add(item, 'person', { task: '', line: null, n: people.length, at_m: [] });
  if (today.length > 0)
    for (const item of ALWAYS) add(item, 'person', { task: '', line: null, n: 1, at_m: [] });
  const loads = [...rows].map(([item, { n, drops, why }]): Load => {
    const unit = unitOf(item, cat);
    const one = massOf(item, cat);
    return {
      item,
      name: nameOf(item, cat),
      n,
      unit,
      kg: one === null ? null : n * one,
      drops,
      why,
    };
  });
  const all = withCoils(loads, tasks, day, today, cuts, cat);
  const order = new Map(today.map(({ task }, k) => [task.id, k]));
  const first = (l: Load) => Math.min(...l.drops.map((d) => order.get(d.task) ?? -1));
  const kg = sum(all.map((l) => l.kg ?? 0));
  const carries_kg = figure(cat, 'build.trailer');
  return {
    day,
    tasks: today,
    people,
    // Tools and what each person has first; then in the order in which it is put down.
    loads: all.sort((a, b) => WHY.indexOf(a.why) - WHY.indexOf(b.why) || first(a) - first(b) || a.name.localeCompare(b.name)), // prettier-ignore
    kg,
    carries_kg,
    trips: Math.max(1, Math.ceil(kg / carries_kg)),
    safety: cautionsOf(today),
  };
}
const WHY: readonly Load['why'][] = ['person', 'tool', 'part'];

/** Setting in concrete burns and cutting treated timber dusts, whatever the task. */
function cautionsOf(today: readonly DayTask[]): Caution[] {
  const items = new Set(today.flatMap((t) => t.parts.map(([item]) => item)));
  const out = new Set(today.flatMap(({ task }) => kindOf(task.kind).safety) as Caution[]);
  if (items.has('concrete')) out.add('cement');
  if (items.has('end.rail') || items.has('end.strut')) out.add('dust');
  if (today.length > 0) out.add('alone');
  return [...out];
}

/** Wire of strung strands goes out on its coils: those from which a line that is strung today is cut. */
function withCoils(
  loads: readonly Load[],
  tasks: readonly PlannedTask[],
  day: string,
  today: readonly DayTask[],
  cuts: readonly WireCut[],
  cat: Catalogue,
): Load[] {
  const strung = today.filter(({ task }) => task.kind === 'run');
  if (strung.length === 0 || cuts.length === 0) return [...loads];
  const lines = new Set(strung.map(({ task }) => task.line));
  const earlier = new Set(tasks.filter((t) => t.kind === 'run' && (t.doneOn !== null || t.shifts.some((s) => s.day < day))).map((t) => t.line)); // prettier-ignore
  const coils = cuts.flatMap((cut) =>
    cut.cutting.coils.flatMap((coil, k): Load[] => {
      const own = coil.pieces.filter((p) => lines.has(cut.runs[p.run]!.line));
      if (own.length === 0) return [];
      const gone = sum(coil.pieces.filter((p) => earlier.has(cut.runs[p.run]!.line)).map((p) => p.length_m)); // prettier-ignore
      const one = massOf(`wire.${cut.wire}`, cat);
      const left_m = Math.max(0, coil.length_m - gone);
      return [
        {
          item: `coil.${cut.wire}.${k + 1}`,
          name: `Coil ${k + 1}, ${cat.wires[cut.wire]!.name}`,
          n: 1,
          unit: 'each',
          kg: one === null ? null : left_m * one,
          why: 'part',
          drops: strung
            .filter(({ task }) => own.some((p) => cut.runs[p.run]!.line === task.line))
            .map(({ task }): Drop => ({ task: task.id, line: task.line, n: 1, at_m: [] })),
        },
      ];
    }),
  );
  const cutWires = new Set(cuts.filter((c) => !c.fault).map((c) => `wire.${c.wire}`));
  const runs = new Set(strung.map(({ task }) => task.id));
  // What is left of the row is short pieces of other tasks: off the offcuts, by the metre.
  const rest = loads.flatMap((l): Load[] => {
    if (!cutWires.has(l.item)) return [l];
    const drops = l.drops.filter((d) => !runs.has(d.task));
    const n = sum(drops.map((d) => d.n));
    const one = massOf(l.item, cat);
    return n > 0 ? [{ ...l, n, drops, kg: one === null ? null : one * n }] : [];
  });
  return [...rest, ...coils];
}

/** The days on which there is work, in order. */
export const daysOf = (tasks: readonly PlannedTask[]): string[] =>
  [...new Set(tasks.flatMap((t) => t.shifts.map((s) => s.day)))].sort();

/** What was left behind before: it is asked about at the same kind of work. */
export interface Forgotten {
  /** Nothing: it is asked about every day. */
  readonly kind: string;
  readonly item: string;
}

/** @returns items of a day that were forgotten before, with how often */
export function asked(day: DayLoad, forgotten: readonly Forgotten[]): { item: string; times: number }[] {
  const kinds = new Set(day.tasks.map((t) => t.task.kind as string));
  const times = new Map<string, number>();
  for (const f of forgotten)
    if (f.kind === '' || kinds.has(f.kind)) times.set(f.item, (times.get(f.item) ?? 0) + 1);
  return [...times].map(([item, n]) => ({ item, times: n })).sort((a, b) => b.times - a.times);
} // prettier-ignore
