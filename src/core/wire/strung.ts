/** One wire strung in one run of a line: pulled from its tensioner over the posts as they stand, at any temperature. */
import { figure, recordOf, type Catalogue } from '../plan/catalogue.js';
import type { Line } from '../plan/schema.js';
import type { Post, Run } from '../report/schema.js';
import { bestSpan, pulledAlong, shapeOf, spanAt, type Shape, type Supports } from './run.js';
import { lockedAfter, slippedAfter } from './warmth.js';
import { rulingSpan, stateOf } from './temperature.js';
import { wireOf } from './wires.js';

/** Temperature at which a school's tension is stated, degrees C. */
export const REFERENCE_C = 15;

/** What of a line says how its wires are strung. */
export type StrungLine = Pick<
  Line,
  'school' | 'tensioner' | 'tensionerAt' | 'tensioners' | 'springs' | 'tie' | 'join' | 'takenUp_on'
>;

/** A run of a line with its posts, and the bays between them as taped over the ground. */
export interface BayedRun {
  readonly run: Run;
  readonly posts: readonly Post[];
  readonly bays_m: readonly number[];
}

export interface Strung {
  readonly wire: string;
  readonly shape: Shape;
  readonly supports: Supports;
  /** Bay in which it is tensioned, by its place in the run, and that bay's middle, plan distance, m. */
  readonly at: number;
  readonly at_m: number;
  /** Tension at the tensioner at the reference temperature, and of every bay then, N. */
  readonly set_N: number;
  readonly tension15_N: Float64Array;
  /** Share of its tension that it loses before it is taken up. */
  readonly creep: number;
  readonly ruling_m: number;
  readonly steel: {
    readonly weight_N_per_m: number;
    readonly EA_N: number;
    readonly alpha_per_K: number;
  };
  readonly spring: { readonly k_N_per_m: number; readonly at: number } | null;
}

/** A turn up to this many radians is none. */
const STRAIGHT = 0.05;

/** Tension at the reference temperature by the line's school, N. */
export const schoolTension = (line: Pick<Line, 'school'>, cat: Catalogue): number =>
  recordOf(cat.schools, line.school).tension_N;

/** Tension at which one wire of the line is strung at the reference temperature, N. */
export const strungAt = (line: Pick<Line, 'school'>, wire: string, cat: Catalogue): number =>
  Math.min(schoolTension(line, cat), recordOf(cat.wires, wire).tension_N ?? Infinity);

/** Where each run is tensioned when nobody has said: in the middle; without tensioners, at the end it is pulled from. */
export const tensionerPlace = (line: Pick<Line, 'tensioner' | 'tensionerAt'>) =>
  line.tensionerAt ?? (line.tensioner ? 'middle' : 'end');

/** The shape of a run over its posts. */
export const shapeOver = (posts: readonly Post[]): Shape =>
  shapeOf(apart(posts).map((p) => [p.e, p.n, p.z_m]));

/** Posts of a run, of which no two that follow each other stand in one place, on a line that runs back over itself neither. */
export const apart = (posts: readonly Post[]): readonly Post[] =>
  posts.filter(
    (p, i) => i === 0 || Math.hypot(p.e - posts[i - 1]!.e, p.n - posts[i - 1]!.n) > 1e-3,
  );

/**
 * What holds a wire back at each post: friction where it turns, and the weight of it that rests there.
 * A net is tied when it has been stretched: it does not slide over the posts.
 */
export function supportsOver(
  shape: Shape,
  weight_N_per_m: number,
  form: string,
  cat: Catalogue,
): Supports {
  const [line, bend] = [figure(cat, 'wire.friction'), figure(cat, 'wire.frictionBend')];
  const panel = form === 'panel';
  const mu = shape.turnAcross.map((t) => (panel ? 0 : Math.abs(t) > STRAIGHT ? bend : line));
  const drag_N = mu.map(
    (m, i) => (m * weight_N_per_m * (shape.chord_m[i]! + shape.chord_m[i + 1]!)) / 2,
  );
  return { mu, drag_N };
}

/** Whether a bay lies so far from bends and from the ends of its run that a tensioner may stand there. */
export function clearOfBends(shape: Shape, cat: Catalogue): (span: number) => boolean {
  const clear = figure(cat, 'wire.clearOfBend');
  const sharp = (figure(cat, 'posts.bendLimit') * Math.PI) / 180;
  const n = shape.chord_m.length;
  const bent = [...shape.turnAcross].flatMap((t, i) => (Math.abs(t) > sharp ? [i] : []));
  return (span) =>
    (n <= 2 * clear || (span >= clear && span < n - clear)) &&
    // A support i stands between the bays i and i + 1.
    !bent.some((i) => span > i - clear && span <= i + clear);
}

/** Whether a place of a line lies in a run. */
export const inRun = (run: Pick<Run, 'from_m' | 'to_m'>, at_m: number): boolean =>
  at_m >= run.from_m && at_m <= run.to_m;

/** The tensioner that was placed by hand in a run. */
export const tensionerIn = (line: Pick<Line, 'tensioners'>, run: Run) =>
  line.tensioners?.find((t) => inRun(run, t.at_m));

/** The bay of a run in which a place lies, by its place among them: at a post the one after it, at the end the last. */
export function bayAt(posts: readonly Post[], at_m: number): number {
  const stands = apart(posts);
  const next = stands.findIndex((p) => p.s_m > at_m + 1e-6);
  return next < 1 ? stands.length - 2 : next - 1;
}

/** The bay in which a run is tensioned. */
export function tensionerBay(
  line: StrungLine,
  { run, posts }: BayedRun,
  shape: Shape,
  pull: { readonly supports: Supports; readonly applied_N: number; readonly hand_N: number },
  cat: Catalogue,
): number {
  const own = tensionerIn(line, run);
  if (own) return bayAt(posts, own.at_m);
  const place = tensionerPlace(line);
  if (place === 'start') return 0;
  if (place === 'end') return shape.chord_m.length - 1;
  if (place === 'middle') return spanAt(shape, shape.length_m / 2);
  return bestSpan(shape, pull, clearOfBends(shape, cat));
}

/** One wire of a line strung in one of its runs. */
export function strungIn(line: StrungLine, bayed: BayedRun, wire: string, cat: Catalogue): Strung {
  const p = wireOf(wire, cat);
  const { form, creep = 0 } = recordOf(cat.wires, wire);
  const shape = shapeOver(bayed.posts);
  const supports = supportsOver(shape, p.weight_N_per_m, form, cat);
  const set_N = strungAt(line, wire, cat);
  const pull = { supports, applied_N: set_N, hand_N: handOf(set_N, cat) };
  const at = tensionerBay(line, bayed, shape, pull, cat);
  const stands = apart(bayed.posts);
  const spring =
    line.springs && form !== 'panel' ? { k_N_per_m: springOf(cat).rate_N_per_m, at } : null;
  const steel = { weight_N_per_m: p.weight_N_per_m, EA_N: p.EA_N, alpha_per_K: figure(cat, 'wire.expansion') }; // prettier-ignore
  return setTo(
    {
      wire,
      shape,
      supports,
      at,
      at_m: (stands[at]!.s_m + stands[at + 1]!.s_m) / 2,
      creep: line.takenUp_on ? 0 : creep,
      ruling_m: rulingSpan(bayed.bays_m),
      steel,
      spring,
    },
    set_N,
    cat,
  );
}

/** A wire set to a tension at its tensioner, at the reference temperature, N. */
export function setTo(
  s: Omit<Strung, 'set_N' | 'tension15_N'>,
  set_N: number,
  cat: Catalogue,
): Strung {
  const pull = { supports: s.supports, at: s.at, applied_N: set_N, hand_N: handOf(set_N, cat) };
  return { ...s, set_N, tension15_N: pulledAlong(s.shape, pull) };
}

/** Pull to which a wire was drawn out by hand before it was tensioned, N. */
export const handOf = (set_N: number, cat: Catalogue): number =>
  Math.min(figure(cat, 'wire.hand'), set_N);

/** The in-line spring as the property has it: length without load, stiffness, how far it works. */
export const springOf = (cat: Catalogue) => ({
  free_m: figure(cat, 'spring.free'),
  rate_N_per_m: figure(cat, 'spring.rate'),
  travel_m: figure(cat, 'spring.travel'),
});

export interface WarmthAsked {
  /** The wire is held fast at all posts, instead of sliding over them. */
  readonly held?: boolean;
  /** It has lost what it creeps in its first year. */
  readonly crept?: boolean;
}

/** Tension of every bay at a temperature, N. @param celsius degrees C */
export function tensionsAt(
  s: Strung,
  celsius: number,
  { held = false, crept = false }: WarmthAsked = {},
): Float64Array {
  const T = crept && s.creep ? s.tension15_N.map((t) => t * (1 - s.creep)) : s.tension15_N;
  const delta_theta_K = celsius - REFERENCE_C;
  if (delta_theta_K === 0) return T;
  const change = { ...s.steel, delta_theta_K, ...(s.spring ? { spring: s.spring } : {}) };
  return held ? lockedAfter(s.shape, T, change) : slippedAfter(s.shape, T, s.supports, change);
}

/** What the ruling span goes by. */
type Ruled = Pick<Strung, 'ruling_m' | 'steel' | 'spring' | 'shape'>;

/** A tension after a change of temperature, over the ruling span, N. */
const changed = (s: Ruled, tension_1_N: number, delta_theta_K: number): number =>
  stateOf({
    tension_1_N,
    delta_theta_K,
    span_m: s.ruling_m,
    wire_weight_N_per_m: s.steel.weight_N_per_m,
    EA_N: s.steel.EA_N,
    alpha_per_K: s.steel.alpha_per_K,
    ...(s.spring ? { spring_N_per_m: s.spring.k_N_per_m, wire_length_m: s.shape.length_m } : {}),
  });

/** What the tensioner is set to at a temperature so that it comes right at the reference one, N: over the ruling span. */
export const setAt = (s: Ruled & Pick<Strung, 'set_N'>, celsius: number): number =>
  changed(s, s.set_N, celsius - REFERENCE_C);

/**
 * Tension at the reference temperature of what was measured at another, N: of this bay, as the ruling span has it.
 * @throws RangeError without a tension above 0
 */
export function reduced(s: Ruled, measured_N: number, celsius: number): number {
  if (!(measured_N > 0)) throw new RangeError('a tension above 0 is needed');
  return changed(s, measured_N, REFERENCE_C - celsius);
}
