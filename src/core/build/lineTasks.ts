/** The work on one line. */
import { sum } from '../base/numbers.js';
import { say } from '../base/units.js';
import { figure, recordOf } from '../plan/catalogue.js';
import type { Line } from '../plan/schema.js';
import { postHours, strandHours } from '../supplies/hours.js';
import { byHand, DRIVEN, isLinePost } from '../supplies/kit.js';
import type { Items } from '../supplies/takeoff.js';
import type { TaskKind } from './kinds.js';
import type { Made } from './made.js';
import { takenBy } from './parts.js';
import { braceParts, placeHours, placesOf, setParts, type WorkPlace } from './places.js';
import { amount, waits, whole, type Draft, type Wait } from './task.js';

/** Tasks of a line, in the order of the work. */
export function lineTasks(line: Line, made: Made): Draft[] {
  const { cat } = made;
  const report = made.lines[line.id]!;
  const strands = line.strands.filter((s) => !s.kept);
  const ground_m = sum(report.runs.map((r) => r.ground_m));
  const { own, droppers } = made.stood[line.id]!;
  const places = placesOf(line, made);
  const taken = takenBy(made.counted[line.id] ?? [], made.gates[line.id] ?? []);
  const { id } = line;
  const out: Draft[] = [];
  const of = (kind: TaskKind) => whole(kind, '', line);

  if (!line.standing && (places.length > 0 || own.length > 0)) {
    out.push({
      ...of('clear'),
      amounts: [amount(ground_m / 100, 'times 100 m', 'build.clearHours', cat)],
    });
    out.push({ ...of('guide'), amounts: [amount(ground_m / 100, 'times 100 m', 'build.guideHours', cat)], after: waits(`clear:${id}`) }); // prettier-ignore
  }
  const ends = places.map((p) => placeTasks(p, line, made));
  const sets = ends.flatMap((e) => e.tasks);
  out.push(...sets);
  const alongPosts = line.standing ? [] : own.filter(isLinePost);
  const posts = postsTasks(line, alongPosts, made);
  out.push(...posts);
  if (strands.length === 0) return out;

  const hanging = report.posts.filter((p) => !['end', 'corner', 'gate'].includes(p.role)).length * strands.length; // prettier-ignore
  const dropped = droppers.length * strands.length;
  out.push({
    ...of('insulators'),
    amounts: [amount(hanging + dropped, 'fixings', 'supplies.insulatorMinutes', cat)],
    after: waits(...[...posts, ...sets.filter((t) => t.kind === 'set')].map((t) => t.id)),
    parts: taken.line.insulators,
  });
  const once = Math.min(Math.max(1, Math.round(figure(cat, 'build.strandsAtOnce'))), strands.length); // prettier-ignore
  const walks = Math.ceil(strands.length / once);
  const km = ground_m / 1000;
  out.push({
    ...of('run'),
    amounts: [
      {
        n: walks,
        of: once > 1 ? `walks with ${once} strands each` : 'strands',
        figure: 'defaults.supplies.wireHours.value',
        hours: strandHours(ground_m, cat) * walks,
      },
    ],
    after: [...waits(`insulators:${id}`), ...ends.flatMap((e) => e.holds)],
    parts: taken.line.run,
  });
  const strung = strands.length * report.runs.length;
  out.push({
    ...of('tie'),
    amounts: [amount(2 * strung, 'ties', 'wire.tieMinutes', cat)],
    after: waits(`run:${id}`),
    parts: taken.line.tie,
  });
  out.push({ ...of('walk'), amounts: [amount(km, 'km', 'build.walkHours', cat)], after: waits(`tie:${id}`) }); // prettier-ignore
  const half = () => [amount(strung, 'strands of runs, one pass of two', 'wire.tensionMinutes', cat, 0.5)]; // prettier-ignore
  out.push({ ...of('tension'), amounts: half(), after: waits(`walk:${id}`) });
  out.push({ ...of('again'), amounts: half(), after: waits(`tension:${id}`) });
  out.push(...gateTasks(line, sets, taken, made));
  out.push(jumpersTask(line, taken.line.jumpers, made));
  if (taken.line.rods.length > 0) {
    const rods = sum(taken.line.rods.filter(([item]) => item === 'earth.rod').map(([, n]) => n));
    out.push({ ...of('rods'), amounts: [amount(rods, 'rods', 'build.rodHours', cat)], parts: taken.line.rods, after: waits(`clear:${id}`) }); // prettier-ignore
  }
  if (taken.line.signs.length > 0) {
    const n = sum(taken.line.signs.map(([, k]) => k));
    out.push({ ...of('signs'), amounts: [amount(n, 'signs', 'build.signMinutes', cat)], parts: taken.line.signs, after: waits(`again:${id}`) }); // prettier-ignore
  }
  const takenUp = strung + sets.filter((t) => t.kind === 'brace').length;
  const later = (kind: TaskKind, wait_h: number): Draft => ({
    ...of(kind),
    amounts: [amount(takenUp, 'wires', 'build.braceAgainMinutes', cat)],
    after: [{ id: `again:${id}`, wait_h, why: 'new braces and knots bed in' }],
    aside: true,
  });
  out.push(later('day', 24), later('week', 168));
  return out;
}

/** Setting and bracing of one place, and what the wire waits for there. */
function placeTasks(
  p: WorkPlace,
  line: Line,
  made: Made,
): { readonly tasks: Draft[]; readonly holds: Wait[] } {
  const { cat } = made;
  const hours = placeHours(p, cat);
  const key = `${line.id}.${p.key}`;
  const where = { from_m: p.from_m, to_m: p.to_m };
  const setting = recordOf(cat.settings, hours.setting);
  const owner = ownerOf(p, line, made);
  const set = [...(p.posts.length > 0 ? [key] : []), ...(owner ? [owner] : [])].map((k): Wait => {
    const why = hours.wait_h > 0 ? { why: setting.name } : {};
    return { id: `set:${k}`, wait_h: hours.wait_h, ...why };
  });
  const tasks: Draft[] = [];
  if (p.posts.length > 0)
    tasks.push({
      ...whole('set', '', line, key),
      ...where,
      name: `Set ${p.words}`,
      amounts: [
        {
          n: p.posts.length,
          of: `posts, ${setting.name.toLowerCase()}`,
          figure: `settings.${hours.setting}.hours`,
          hours: hours.set_h,
        },
      ],
      after: waits(`guide:${line.id}`),
      machine: DRIVEN.has(hours.setting) ? 'hire.driver' : 'hire.auger',
      parts: setParts(p, made, line.id),
    });
  const braced = hours.braced > 0 && hours.brace_h > 0;
  if (braced)
    tasks.push({
      ...whole('brace', '', line, key),
      ...where,
      name: `Brace ${p.words}`,
      amounts: [
        {
          n: hours.braced,
          of: 'braces',
          figure: `ends.${p.ends[0]!.kind}.hours`,
          hours: hours.brace_h,
        },
      ],
      after: set,
      parts: braceParts(p, cat),
    });
  return { tasks, holds: braced ? waits(`brace:${key}`) : set };
}

/** The place of another line whose post serves here as well. */
function ownerOf(p: WorkPlace, line: Line, made: Made): string | null {
  if (!made.stood[line.id]!.brought.some((s) => Math.abs(s - p.from_m) <= 0.5)) return null;
  for (const m of made.meetings) {
    const [own, other] = m.a === line.id ? [m.sa, m.b] : m.b === line.id ? [m.sb, m.a] : [NaN, ''];
    if (!(Math.abs(own - p.from_m) <= 0.5)) continue;
    const at = m.a === line.id ? m.sb : m.sa;
    const theirs = made.plan.lines[other];
    if (!theirs || other === line.id) continue;
    const place = placesOf(theirs, made).find((q) => at >= q.from_m - 0.5 && at <= q.to_m + 0.5 && q.posts.length > 0); // prettier-ignore
    if (place) return `${other}.${place.key}`;
  }
  return null;
}

/** Line posts: light ones by hand, the others with what is hired for them. */
function postsTasks(
  line: Line,
  posts: readonly { kind: string; s_m: number }[],
  { cat, plan }: Made,
): Draft[] {
  return (['posts', 'stout'] as const).flatMap((work): Draft[] => {
    const own = posts.filter((p) => byHand(p.kind, cat) === (work === 'posts'));
    if (own.length === 0) return [];
    const kinds = [...new Set(own.map((p) => p.kind))];
    return [
      {
        ...whole(work, '', line),
        amounts: kinds.map((kind) => {
          const n = own.filter((p) => p.kind === kind).length;
          const steel = recordOf(cat.posts, kind).family === 'steel';
          return {
            n,
            of: recordOf(cat.posts, kind).name,
            figure: `defaults.supplies.${steel ? 'light' : 'timber'}PostHours.value`,
            hours: n * postHours(kind, cat),
          };
        }),
        after: waits(`guide:${line.id}`),
        machine: work === 'posts' ? null : plan.noDriver ? 'hire.auger' : 'hire.driver',
        parts: own.map((p): Items[number] => [recordOf(cat.posts, p.kind).price, 1, p.s_m]),
      },
    ];
  });
}

function gateTasks(
  line: Line,
  sets: readonly Draft[],
  { trench, hang }: ReturnType<typeof takenBy>,
  { gates, cat, plan }: Made,
): Draft[] {
  return (gates[line.id] ?? []).flatMap((g): Draft[] => {
    const words = g.name || `the gate at ${say(g.at_m, 'length', plan.units)}`;
    const where = { from_m: g.at_m, to_m: g.at_m };
    const key = `${line.id}.${g.id}`;
    const braced = sets.some((t) => t.id === `brace:${key}`) ? `brace:${key}` : `set:${key}`;
    const out: Draft[] = [];
    if (trench[g.id])
      out.push({
        ...whole('trench', '', line, g.id),
        ...where,
        name: `Dig in the cable of ${words}`,
        amounts: [amount(1, 'gate', 'build.trenchHours', cat)],
        after: waits(`set:${key}`),
        parts: trench[g.id]!,
      });
    if (hang[g.id])
      out.push({
        ...whole('hang', '', line, g.id),
        ...where,
        name: `Hang ${words}`,
        amounts: [amount(g.leaves ?? 1, 'leaves', 'supplies.gateHours', cat)],
        after: waits(braced, ...(trench[g.id] ? [`trench:${g.id}`] : [])),
        parts: hang[g.id]!,
      });
    return out;
  });
}

/** Ties wait for the wires of whatever line they reach to. */
function jumpersTask(line: Line, parts: Items, { meetings, cat, plan, gates }: Made): Draft {
  const others = meetings.flatMap((m) => (m.a === line.id ? [m.b] : m.b === line.id ? [m.a] : []));
  const { minutes } = recordOf(cat.connectors, plan.connectors ?? 'clamp');
  const switches = parts.some(([item]) => item.startsWith('switch.'));
  const fixed = sum(
    parts.filter(([item]) => /^(clamp|crimp|switch)\./.test(item)).map(([, k]) => k),
  );
  // Where no connector is bought, each piece of wire is one.
  const n = fixed || parts.length;
  return {
    ...whole('jumpers', '', line),
    name: switches ? 'Jumpers and switches' : 'Jumpers',
    amounts: [
      { n, of: 'connectors', figure: `connectors.${plan.connectors ?? 'clamp'}.minutes`, hours: (n * minutes) / 60 }, // prettier-ignore
    ],
    after: waits(
      `again:${line.id}`,
      ...new Set(others.filter((o) => o !== line.id).map((o) => `again:${o}`)),
      ...(gates[line.id] ?? []).map((g) => `trench:${g.id}`),
    ),
    parts,
  };
}
