/** A fence that keeps predators out is as good as its weakest stretch: closed, equal all round, gates included. */
import { sentence } from '../../../base/words.js';
import { distance, JOIN_TOLERANCE, planLength } from '../../../plan/geometry.js';
import { recordOf } from '../../../plan/catalogue.js';
import type { Line } from '../../../plan/schema.js';
import { listed, onLine, replace, type Found, type Rule, type Scene } from '../../../findings/rule.js'; // prettier-ignore

/** Tops and lowest strands nearer than this are equal, m. */
const EQUAL_m = 0.05;
/** So many gates are named; the others are counted. */
const NAMED = 3;

export const ring: Rule = {
  id: 'ring',
  cause: 'Ring against outsiders is open',
  step: 'land',
  kind: 'mend',
  whole: true,
  source: {
    mark: 'practice',
    text: 'A fence against predators is as good as its weakest stretch, gates included',
  },
  check: (scene) => {
    const kinds = new Set(Object.values(scene.plan.lines).flatMap((l) => l.keepOut));
    return [...kinds].sort().flatMap((kind) => {
      const lines = Object.values(scene.plan.lines).filter((l) => l.keepOut.includes(kind));
      return groupsOf(lines, scene).flatMap((group) => {
        const open = group.flatMap((line) => freeEnds(line, group, scene));
        if (open.length > 0) return openings(open, kind, scene);
        return [...unequal(group, kind, scene), ...gates(group, kind, scene)];
      });
    });
  },
};

const nameOf = (kind: string, { cat }: Scene): string =>
  recordOf(cat.profiles, kind).name.toLowerCase().replace(', kept out', '');

const meets = (m: Scene['meetings'][number], line: string, s: number): string | null => {
  if (m.a === line && Math.abs(m.sa - s) <= JOIN_TOLERANCE) return m.b;
  if (m.b === line && Math.abs(m.sb - s) <= JOIN_TOLERANCE) return m.a;
  return null;
};

/** Lines that hang together. */
function groupsOf(lines: readonly Line[], { meetings }: Scene): Line[][] {
  const own = new Map(lines.map((l) => [l.id, l.id]));
  const root = (id: string): string => (own.get(id) === id ? id : root(own.get(id)!));
  for (const { a, b } of meetings) if (own.has(a) && own.has(b)) own.set(root(a), root(b));
  const groups = new Map<string, Line[]>();
  for (const l of lines) groups.set(root(l.id), [...(groups.get(root(l.id)) ?? []), l]);
  return [...groups.values()];
}

interface End {
  readonly line: Line;
  readonly s: number;
  /** Lines that meet it there and do not keep it out. */
  readonly on: readonly Line[];
}

/** Ends of a line that meet none of the group. */
function freeEnds(line: Line, group: readonly Line[], scene: Scene): End[] {
  const [first, last] = [line.vertices[0]!, line.vertices.at(-1)!];
  if (distance(first, last) <= JOIN_TOLERANCE) return [];
  return [0, planLength(line)].flatMap((s): End[] => {
    const there = scene.meetings.flatMap((m) => meets(m, line.id, s) ?? []);
    if (there.some((id) => group.some((l) => l.id === id))) return [];
    const on = there.map((id) => scene.plan.lines[id]!);
    const rims = on.filter((l) => l.boundary);
    return [{ line, s, on: rims.length > 0 ? rims : on }];
  });
}

/** Where what is kept out comes round an end, or through the fence that the end stands on. */
function openings(ends: readonly End[], kind: string, scene: Scene): Found[] {
  const who = nameOf(kind, scene);
  const seen = new Set<string>();
  return ends.flatMap(({ line, s, on }): Found[] => {
    if (on.length === 0)
      return [
        {
          key: `${kind}-${line.id}-${line.vertices.at(s === 0 ? 0 : -1)!.id}`,
          kind: 'confirm',
          title: `${line.name} is not closed against ${who}`,
          why: `What it keeps out walks round its ${s === 0 ? 'start' : 'end'}, which meets no other fence.`,
          todo: 'Close the ring, or leave it if the ground beyond stops them.',
          place: onLine(line, s),
        },
      ];
    return on.flatMap((weak): Found[] => {
      if (seen.has(weak.id)) return [];
      seen.add(weak.id);
      return [
        {
          key: `${kind}-${weak.id}`,
          cause: 'A weak fence in the ring against outsiders',
          title: `${weak.name} lets ${who} in`,
          why: `${line.name} keeps them out and ends on it at ${scene.where(line.id, s)}; ${weak.name} was not planned against them, and the ring is as good as its weakest stretch.`,
          todo: `Plan ${weak.name} against them as well, or bring ${line.name} round.`,
          place: onLine(weak),
          mends: () => [
            {
              words: `Keep them out on ${weak.name} as well`,
              patch: [replace(`/lines/${weak.id}/keepOut`, [...weak.keepOut, kind].slice(0, 8))],
            },
          ],
        },
      ];
    });
  });
}

/** What a stretch has to show to what comes to it. */
const strengthOf = ({ strands }: Line) => ({
  low_m: strands[0]?.height_m ?? Infinity,
  top_m: strands.at(-1)?.height_m ?? 0,
  live: strands.filter((s) => s.duty === 'live').length,
});

/** Stretches that are lower, more open below or less live than the rest of their ring. */
function unequal(group: readonly Line[], kind: string, scene: Scene): Found[] {
  const all = group.map(strengthOf);
  const best = {
    low_m: Math.min(...all.map((s) => s.low_m)),
    top_m: Math.max(...all.map((s) => s.top_m)),
    live: Math.max(...all.map((s) => s.live)),
  };
  return group.flatMap((line, i): Found[] => {
    const s = all[i]!;
    const worse = [
      s.low_m > best.low_m + EQUAL_m && `its lowest strand is at ${scene.say.mm(s.low_m)}, elsewhere at ${scene.say.mm(best.low_m)}`, // prettier-ignore
      s.top_m < best.top_m - EQUAL_m && `its top is at ${scene.say.mm(s.top_m)}, elsewhere at ${scene.say.mm(best.top_m)}`, // prettier-ignore
      s.live < best.live && `${s.live} of its strands are live, elsewhere ${best.live}`,
    ].filter((w) => w !== false);
    if (worse.length === 0) return [];
    const words = listed(worse);
    return [
      {
        key: `${kind}-weak-${line.id}`,
        kind: 'confirm',
        cause: 'A weak stretch in the ring against outsiders',
        title: `${line.name} is the weak stretch against ${nameOf(kind, scene)}`,
        why: sentence(words),
        todo: 'Give the whole ring one make-up, or leave it if the ground there helps.',
        place: onLine(line),
        badness: worse.length,
      },
    ];
  });
}

/** The gates of a ring: each is a hole until it is hung as tight as the fence. */
function gates(group: readonly Line[], kind: string, scene: Scene): Found[] {
  const ids = new Set(group.map((l) => l.id));
  const all = Object.values(scene.plan.gates).filter((g) => ids.has(g.line));
  const first = all[0];
  if (!first) return [];
  const need = scene.lines[first.line]!.requirement?.needs.find((n) => n.profile === kind);
  if (!need) return [];
  const named = all.slice(0, NAMED).map((g) => g.name);
  const rest = all.length > NAMED ? [`${all.length - NAMED} more`] : [];
  return [
    {
      // By the ring's first line: gates come and go.
      key: `${kind}-gates-${[...ids].sort()[0]}`,
      kind: 'confirm',
      cause: 'Gates in the ring against outsiders',
      title: `${all.length === 1 ? 'A gate is' : `${all.length} gates are`} in the ring against ${nameOf(kind, scene)}`,
      why: `${listed([...named, ...rest])}: a gate is a hole unless it closes to ${scene.say.mm(need.lowestMax_m)} over a firm sill and has no gap wider than ${scene.say.mm(need.gapMax_m)}, to the height of the fence.`,
      todo: 'Mesh or live strands on each gate, a sill of wood or stone below it, and see that it is shut.',
      place: onLine(scene.plan.lines[first.line]!, first.at_m),
      badness: all.length,
    },
  ];
}
