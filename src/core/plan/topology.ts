/** Where lines meet: shared places, and which lines hang together. */
import { stations } from './geometry.js';
import { legIndexOf } from './legIndex.js';
import { JOIN_TOLERANCE } from './geometry.js';
import type { Line, Plan } from './schema.js';

/** A place on a line that has a name in the network. */
export interface Mark {
  readonly s: number;
  readonly location: string;
}

export interface Topology {
  /** Named places of each line, in order along it; both ends always among them. */
  readonly marks: Readonly<Record<string, readonly Mark[]>>;
  /** Lines that hang together by touching, each group as line ids. */
  readonly groups: readonly (readonly string[])[];
}

/**
 * Finds where the ends and vertices of lines touch other lines.
 * @param extra further plan distances to be named on a line (gates, energisers, strained ends)
 */
export function topologyOf(
  lines: Plan['lines'],
  extra: Readonly<Record<string, readonly number[]>>,
): Topology {
  const all = Object.values(lines);
  const index = legIndexOf(lines);
  const wanted = new Map<string, number[]>();
  const want = (line: string, s: number) => {
    const list = wanted.get(line) ?? [];
    wanted.set(line, list);
    const near = list.find((x) => Math.abs(x - s) <= JOIN_TOLERANCE);
    if (near !== undefined) return near;
    list.push(s);
    return s;
  };
  const sets = new UnionFind();
  const key = (line: string, s: number) => `${line}:${s.toFixed(2)}`;
  const whole = new UnionFind();
  for (const line of all) {
    const at = stations(line.vertices);
    want(line.id, 0);
    want(line.id, at.at(-1)!);
    for (const s of extra[line.id] ?? []) want(line.id, Math.min(Math.max(0, s), at.at(-1)!));
  }
  for (const line of all) {
    const at = stations(line.vertices);
    line.vertices.forEach((v, i) => {
      for (const hit of index.near(v, JOIN_TOLERANCE)) {
        if (hit.line === line.id) continue;
        const mine = key(line.id, want(line.id, at[i]!));
        sets.join(mine, key(hit.line, want(hit.line, hit.s)));
        whole.join(line.id, hit.line);
      }
    });
    closeOnItself(line, at, want, (a, b) => sets.join(key(line.id, a), key(line.id, b)));
  }
  const marks: Record<string, Mark[]> = {};
  for (const line of all) {
    marks[line.id] = wanted
      .get(line.id)!
      .sort((a, b) => a - b)
      .map((s) => ({ s, location: sets.root(key(line.id, s)) }));
  }
  const groups = new Map<string, string[]>();
  for (const line of all) {
    const root = whole.root(line.id);
    groups.set(root, [...(groups.get(root) ?? []), line.id]);
  }
  return { marks, groups: [...groups.values()] };
}

/** A ring: the line ends where it began. */
function closeOnItself(
  line: Line,
  at: readonly number[],
  want: (line: string, s: number) => number,
  join: (a: number, b: number) => void,
): void {
  const first = line.vertices[0]!;
  const last = line.vertices.at(-1)!;
  if (
    line.vertices.length > 2 &&
    Math.hypot(first.e - last.e, first.n - last.n) <= JOIN_TOLERANCE
  ) {
    join(want(line.id, 0), want(line.id, at.at(-1)!));
  }
}

class UnionFind {
  private readonly parent = new Map<string, string>();
  root(k: string): string {
    let at = k;
    for (let up = this.parent.get(at); up !== undefined; up = this.parent.get(at)) at = up;
    return at;
  }
  join(a: string, b: string): void {
    const [p, q] = [this.root(a), this.root(b)];
    if (p !== q) this.parent.set(p, q);
  }
}
