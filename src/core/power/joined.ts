/**
 * What is tied at the places of a network by hand, instead of what is proposed: which strands hang together there, and
 * which are dead because of it.
 */
import { Groups, mostCommon } from '../base/groups.js';
import type { Plan, Strand } from '../plan/schema.js';
import type { Run } from '../report/schema.js';
import { NEAR, type Fence } from './wired.js';

type Tie = NonNullable<Plan['lines'][string]['joins']>[number]['ties'][number];

/** Name in the circuit of the i-th strand of a line in its k-th run. */
export const strandName = (line: string, index: number, run: number): string =>
  run === 0 ? `${line}/${index}` : `${line}/${index}~${run}`;

/** Line, strand and run that a name in the circuit means; null for cables. */
export function strandOf(name: string): { line: string; strand: number; run: number } | null {
  const found = /^(.+)\/(\d+)(?:~(\d+))?$/.exec(name);
  return found && { line: found[1]!, strand: Number(found[2]), run: Number(found[3] ?? 0) };
}

/** The strand that a name in the circuit means. */
export function strandIn({ wired }: Pick<Fence, 'wired'>, name: string): Strand {
  const { line, strand } = strandOf(name)!;
  return wired[line]!.line.strands[strand]!;
}

/** Strands that are tied by hand, by place. */
export type HandTies = ReadonlyMap<string, HandJoin>;

export interface HandJoin {
  /** The line that has it, and where it says that it is, m. */
  readonly line: string;
  readonly at_m: number;
  readonly ties: readonly (Pick<Tie, 'kind' | 'switch'> & {
    readonly a: string;
    readonly b: string;
  })[];
}

/** The ties set by hand, by names of strands. Where two lines set the same place, the first one counts. */
export function handTies({ ids, wired, topology }: Fence): HandTies {
  const out = new Map<string, HandJoin>();
  for (const id of ids)
    for (const join of wired[id]!.line.joins ?? []) {
      const location = topology.marks[id]!.find((m) => Math.abs(m.s - join.at_m) <= NEAR)?.location;
      if (location === undefined || out.has(location)) continue;
      const nameOf = ({ line = id, side, strand }: Tie['a']): string | null => {
        const own = wired[line];
        const s = topology.marks[line]?.filter((m) => m.location === location).map((m) => m.s);
        if (!own || !s || !own.line.strands[strand]) return null;
        const run = own.runs.findIndex((r) => s.some((at) => REACHES[side](r, at)));
        return run < 0 ? null : strandName(line, strand, run);
      };
      const ties = join.ties.flatMap(({ a, b, ...how }) => {
        const [p, q] = [nameOf(a), nameOf(b)];
        return p === null || q === null || p === q ? [] : [{ a: p, b: q, ...how }];
      });
      out.set(location, { line: id, at_m: join.at_m, ties });
    }
  return out;
}

const REACHES: Readonly<Record<Tie['a']['side'], (run: Run, at: number) => boolean>> = {
  before: (run, at) => Math.abs(run.to_m - at) <= NEAR,
  after: (run, at) => Math.abs(run.from_m - at) <= NEAR,
  through: (run, at) => at > run.from_m + NEAR && at < run.to_m - NEAR,
};

/** What hand-made joins make of the runs: as the pulse's network sees them. */
export interface Joined {
  /** Strands of a run that nothing feeds. */
  dead(line: string, run: number): readonly number[];
  /** The node of a run at a place: the place itself where its strands hang together with what leads on from there. */
  nodeAt(location: string, line: string, run: number): string;
}

/**
 * @param present live strands by place, in the order in which cables and lead-outs take the first
 * @param dead names of strands that nothing feeds
 */
export function joinedBy(
  hand: HandTies,
  present: (location: string) => readonly string[],
  dead: ReadonlySet<string>,
): Joined {
  const groups = new Map<string, Map<string, string>>();
  const groupsAt = (location: string): Map<string, string> => {
    let own = groups.get(location);
    if (!own)
      groups.set(location, (own = hangTogether(present(location), hand.get(location)!.ties)));
    return own;
  };
  const of = (line: string, run: number) => (name: string) => {
    const own = strandOf(name);
    return own?.line === line && own.run === run;
  };
  const deadOf = new Map<string, number[]>();
  for (const name of dead) {
    const { line, run, strand } = strandOf(name)!;
    const key = strandName(line, 0, run);
    deadOf.set(key, [...(deadOf.get(key) ?? []), strand]);
  }
  return {
    dead: (line, run) => deadOf.get(strandName(line, 0, run)) ?? [],
    nodeAt(location, line, run) {
      if (!hand.has(location)) return location;
      const own = groupsAt(location);
      const here = present(location);
      const mine = here.filter(of(line, run));
      // Most of its fed strands say where the run leads.
      const alive = mine.filter((name) => !dead.has(name));
      const best = mostCommon((alive.length > 0 ? alive : mine).map((name) => own.get(name)!));
      return best === undefined || best === own.get(here[0]!) ? location : `${location}|${best}`;
    },
  };
}

/** Of each name, the one that stands for all that it is tied to. */
function hangTogether(
  names: readonly string[],
  ties: readonly { readonly a: string; readonly b: string }[],
): Map<string, string> {
  const groups = new Groups();
  for (const { a, b } of ties) groups.join(b, a);
  return new Map(names.map((n) => [n, groups.of(n)]));
}
