/** Where lines meet: shared places, and which lines hang together. */
import { Groups } from '../base/groups.js';
import { JOIN_TOLERANCE, planLength } from './geometry.js';
import { meetingsOf, type Meeting } from './meets.js';
import type { Plan } from './schema.js';

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
 * Names the places where lines meet, and puts together the lines that hang together.
 * @param extra further plan distances to be named on a line (gates, energisers, strained ends)
 */
export function topologyOf(
  lines: Plan['lines'],
  extra: Readonly<Record<string, readonly number[]>>,
  meetings: readonly Meeting[] = meetingsOf(lines),
): Topology {
  const all = Object.values(lines);
  const wanted = new Map<string, number[]>();
  const want = (line: string, s: number) => {
    const list = wanted.get(line) ?? [];
    wanted.set(line, list);
    const near = list.find((x) => Math.abs(x - s) <= JOIN_TOLERANCE);
    if (near !== undefined) return near;
    list.push(s);
    return s;
  };
  const sets = new Groups();
  const key = (line: string, s: number) => `${line}:${s.toFixed(2)}`;
  const whole = new Groups();
  for (const line of all) {
    const total = planLength(line);
    want(line.id, 0);
    want(line.id, total);
    for (const s of extra[line.id] ?? []) want(line.id, Math.min(Math.max(0, s), total));
  }
  for (const { a, b, sa, sb } of meetings) {
    sets.join(key(a, want(a, sa)), key(b, want(b, sb)));
    whole.join(a, b);
  }
  const marks: Record<string, Mark[]> = {};
  for (const line of all) {
    marks[line.id] = wanted
      .get(line.id)!
      .sort((a, b) => a - b)
      .map((s) => ({ s, location: sets.of(key(line.id, s)) }));
  }
  const groups = new Map<string, string[]>();
  for (const line of all) {
    const root = whole.of(line.id);
    groups.set(root, [...(groups.get(root) ?? []), line.id]);
  }
  return { marks, groups: [...groups.values()] };
}
