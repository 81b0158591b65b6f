/** Posts that must stand, and stretches where none may: changes of one line. */
import { planLength } from './geometry.js';
import type { Line, Pin, Plan } from './schema.js';

/** A pin this near to a place is the one that is meant, m. */
const SAME = 0.05;

const near = (a: number, b: number): boolean => Math.abs(a - b) <= SAME;

/** The pin at a place of a line, if there is one. */
export const pinAt = (line: Line, s: number): Pin | undefined =>
  line.pins?.find((p) => near(p.at_m, s));

/**
 * Pins a post at a place, or changes the pin that is there. A post that was placed nearby gives way.
 * @param clear how near a placed post gives way, m
 */
export function setPin(
  plan: Plan,
  id: string,
  s: number,
  change: Partial<Omit<Pin, 'at_m'>>,
  clear = 0.5,
): void {
  const line = plan.lines[id]!;
  const pins = (line.pins ??= []);
  const known = pinAt(line, s);
  if (known) Object.assign(known, change);
  else {
    const at_m = Math.min(Math.max(0, s), planLength(line));
    pins.push({ at_m, kind: null, ...change });
    pins.sort((a, b) => a.at_m - b.at_m);
    if (line.placed) line.placed = line.placed.filter((p) => Math.abs(p.at_m - s) > clear);
  }
}

/** Takes a pin out; where posts were placed by the ground its post stays as a placed one. */
export function removePin(plan: Plan, id: string, s: number): void {
  const line = plan.lines[id]!;
  const pin = pinAt(line, s);
  if (!pin) return;
  line.pins = line.pins!.filter((p) => p !== pin);
  if (!line.placed) return;
  line.placed.push({ at_m: pin.at_m, kind: pin.kind ?? line.post });
  line.placed.sort((a, b) => a.at_m - b.at_m);
}

/** Moves a post: it is pinned at the new place and leaves the old one. */
export function movePost(
  plan: Plan,
  id: string,
  from: number,
  to: number,
  kind: string | null,
): void {
  const line = plan.lines[id]!;
  const was = pinAt(line, from);
  if (was) line.pins = line.pins!.filter((p) => p !== was);
  if (line.placed) line.placed = line.placed.filter((p) => !near(p.at_m, from));
  setPin(plan, id, to, { kind: was ? was.kind : kind, ...(was?.equal ? { equal: true } : {}) });
}

/** Asks for equal bays between two posts: both are pinned. */
export function setEqual(plan: Plan, id: string, from: number, to: number): void {
  const line = plan.lines[id]!;
  const [a, b] = [Math.min(from, to), Math.max(from, to)];
  if (line.pins) line.pins = line.pins.filter((p) => p.at_m <= a + SAME || p.at_m >= b - SAME);
  setPin(plan, id, a, { equal: true });
  setPin(plan, id, b, {});
  if (line.placed) line.placed = line.placed.filter((p) => p.at_m <= a || p.at_m >= b);
}

/** Bars a stretch of a line for posts. */
export function barPosts(plan: Plan, id: string, from: number, to: number, why: string): void {
  const line = plan.lines[id]!;
  const [from_m, to_m] = [
    Math.max(0, Math.min(from, to)),
    Math.min(planLength(line), Math.max(from, to)),
  ];
  if (to_m - from_m < SAME) return;
  (line.noPosts ??= []).push({ from_m, to_m, why });
  line.noPosts.sort((a, b) => a.from_m - b.from_m);
}
