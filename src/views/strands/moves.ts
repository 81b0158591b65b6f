/** Changes of the strands of one line; each is one step that can be undone. */
import type { Catalogue } from '../../core/plan/catalogue.js';
import { limitsAt } from '../../core/plan/limits.js';
import type { Duty, Line, Strand } from '../../core/plan/schema.js';
import { restring } from '../../core/edit/joining.js';
import { USUAL_STRAND } from '../../core/strands/makeUp.js';
import { isBarbed, isPanel } from '../../core/wire/bottom.js';
import { commit, preview, refuse } from '../../session/session.js';

/** Least and greatest height of a strand, and the least apart, m. */
const { min: LOW, max: HIGH } = limitsAt('lines/*/strands/*/height_m');
const APART = 0.01;
/** Step of the mouse and the arrow keys, m. */
export const STEP = 0.01;

/** The nearest free height, m: strands stand 10 mm apart or more. */
function free(strands: readonly Strand[], i: number, wanted: number): number {
  const h = Math.round(Math.min(HIGH, Math.max(LOW, wanted)) * 1000) / 1000;
  const taken = (x: number) =>
    strands.some((s, k) => k !== i && Math.abs(s.height_m - x) < APART - 1e-6);
  for (let away = 0; away < 0.3; away += 0.005) {
    for (const sign of [1, -1]) {
      const x = Math.round((h + sign * away) * 1000) / 1000;
      if (x >= LOW && x <= HIGH && !taken(x)) return x;
    }
  }
  return strands[i]!.height_m;
}

const inOrder = (strands: Strand[]): Strand[] => strands.sort((a, b) => a.height_m - b.height_m);

/** Strands with the i-th at another height; it may pass others. Also where it then stands. */
export function moved(
  strands: readonly Strand[],
  i: number,
  height: number,
): { strands: Strand[]; at: number } {
  const own = { ...strands[i]!, height_m: free(strands, i, height) };
  const next = inOrder(strands.map((s, k) => (k === i ? own : { ...s })));
  return { strands: next, at: next.indexOf(own) };
}

const write = (line: Line, words: string, strands: Strand[]) =>
  commit(`${words} on ${line.name}`, (d) => restring(d, line.id, strands));

/** Shows a strand at a height while it is held. */
export const hold = (line: Line, strands: Strand[]): void =>
  preview((d) => restring(d, line.id, strands));

/** Puts a strand to a height; returns its place from the ground. */
export function setHeight(line: Line, i: number, height: number): number {
  const next = moved(line.strands, i, height);
  write(line, 'height of a strand', next.strands);
  return next.at;
}

/** Changes what a strand is. Barbed wire and panels are never live: that is refused, with the reason. */
export function setMake(
  line: Line,
  i: number,
  part: Partial<Strand>,
  cat: Catalogue,
  words: string,
): void {
  const before = line.strands[i]!;
  const next = { ...before, ...part };
  const never = isBarbed(next, cat) ? 'Barbed wire' : isPanel(next, cat) ? 'A woven panel' : null;
  if (never && next.duty === 'live') {
    if (part.duty === 'live')
      return refuse(
        `${never} is never made live: whoever is caught in it cannot get free. Put plain wire in its place.`,
      );
    next.duty = 'cold';
    next.insulated = false;
  }
  if (part.duty === 'live') next.insulated = true;
  if (next.duty !== 'live' || i > 0) delete next.switched;
  if (next.offset_m === undefined) delete next.offset_m;
  if (!next.switched) delete next.switched;
  write(
    line,
    words,
    line.strands.map((s, k) => (k === i ? next : s)),
  );
}

export const setDuty = (line: Line, i: number, duty: Duty, cat: Catalogue): void =>
  setMake(line, i, { duty }, cat, 'duty of a strand');

/** A strand in the middle of the gap above the i-th, or on top; returns its place. */
export function addAbove(line: Line, i: number): number {
  const below = line.strands[i];
  const above = line.strands[i + 1];
  if (line.strands.length >= 20) {
    refuse('Twenty strands are the most.');
    return i;
  }
  const height = !below
    ? above
      ? above.height_m / 2
      : 0.9
    : above
      ? (below.height_m + above.height_m) / 2
      : below.height_m + 0.2;
  const make = below && below.duty !== 'cold' && !below.kept ? below : USUAL_STRAND;
  const fresh: Strand = {
    duty: make.duty,
    wire: make.wire,
    insulated: make.insulated,
    height_m: Math.round(Math.min(HIGH, height) * 100) / 100,
  };
  const list = [...line.strands, fresh];
  fresh.height_m = free(list, list.length - 1, fresh.height_m);
  const next = inOrder(list);
  write(line, 'added a strand', next);
  return next.indexOf(fresh);
}

export const remove = (line: Line, i: number): void =>
  write(
    line,
    'took a strand',
    line.strands.filter((_, k) => k !== i),
  );

/** Lets two neighbours change places: their heights stay, what they are goes over. */
export function swap(line: Line, i: number, up: boolean): number {
  const k = up ? i + 1 : i - 1;
  const [a, b] = [line.strands[i], line.strands[k]];
  if (!a || !b) return i;
  const next = line.strands.map((s, j) =>
    j === i ? { ...b, height_m: a.height_m } : j === k ? { ...a, height_m: b.height_m } : s,
  );
  next.forEach((s, j) => j > 0 && delete s.switched);
  write(line, 'changed the order of two strands', next);
  return k;
}
