/**
 * Figures of a property fitted to what was read on it: the leakage of the season, the earth, the wire. Least squares with
 * what is usual as one more datum each, so that what readings say nothing of stays as usual, with its usual spread.
 */
import { leastSquares } from '../base/leastSquares.js';
import { solveSpd } from '../base/spd.js';

/** A figure that nobody knows well; its logarithm is about normal. */
export interface Unknown {
  /** What it usually is, above 0. */
  readonly usual: number;
  /** How far it is usually off, as a share: 0.5 for times or by 1.65. */
  readonly spread: number;
}

/** What was read, and how far such a reading is off where `expected` should be read: a share of that, and a floor. */
export interface Measured {
  readonly value: number;
  readonly rel: number;
  readonly floor: number;
}

export interface Calibrated {
  readonly values: readonly number[];
  /** Each is between these in 90 of 100 such cases. */
  readonly low90: readonly number[];
  readonly high90: readonly number[];
  /** Readings that fit none of the rest, by their place; they were left out. */
  readonly outliers: readonly number[];
  /** What each reading should have been, with these values. */
  readonly expected: readonly number[];
}

/** Farther off than so many spreads is no chance among some dozens of readings. */
const FAR = 4;
/** Never more than this share of the readings is called wrong: then it is the model that is. */
const MOST_WRONG = 0.2;
/** Normal quantile of 95 in 100, spreads. */
const Q95 = 1.6449;

/**
 * @param expected what would be read with some values of the unknowns, in the order of the readings
 * @throws RangeError where no reading is given, or an unknown is not above 0
 */
export function calibrate(
  unknowns: readonly Unknown[],
  expected: (values: readonly number[]) => readonly number[],
  read: readonly Measured[],
): Calibrated {
  if (read.length === 0) throw new RangeError('there is no reading');
  if (unknowns.some((u) => !(u.usual > 0 && u.spread > 0)))
    throw new RangeError('what is usual, and its spread, must be above 0');
  const valuesOf = (t: readonly number[]) => unknowns.map((u, k) => u.usual * Math.exp(u.spread * t[k]!)); // prettier-ignore
  const off = (m: Measured, mu: number) => (m.value - mu) / sigmaOf(m, mu);
  /** @param from where to begin: what fitted before a reading was left out */
  const fit = (out: ReadonlySet<number>, from: readonly number[]) =>
    leastSquares(
      (t) => {
        const mu = expected(valuesOf(t));
        return read.map((m, i) => (out.has(i) ? 0 : off(m, mu[i]!))).concat(t);
      },
      from,
      unknowns.map(() => [-6, 6] as const),
    ).x;

  const out = new Set<number>();
  const none = unknowns.map(() => 0);
  let t = fit(out, none);
  let mu = expected(valuesOf(t));
  for (;;) {
    // The farthest alone: without it others may be as they should.
    let worst = -1;
    read.forEach((m, i) => {
      const far = out.has(i) ? 0 : Math.abs(off(m, mu[i]!));
      if (far > FAR && (worst < 0 || far > Math.abs(off(read[worst]!, mu[worst]!)))) worst = i;
    });
    if (worst < 0 || out.size + 1 > MOST_WRONG * read.length) break;
    out.add(worst);
    t = fit(out, t);
    mu = expected(valuesOf(t));
  }
  const sd = spreads(t, (x) => expected(valuesOf(x)), mu, read, out);
  const at = (k: number, by: number) => unknowns[k]!.usual * Math.exp(unknowns[k]!.spread * (t[k]! + by * sd[k]!)); // prettier-ignore
  return {
    values: valuesOf(t),
    low90: t.map((_, k) => at(k, -Q95)),
    high90: t.map((_, k) => at(k, Q95)),
    outliers: [...out].sort((a, b) => a - b),
    expected: mu,
  };
}

const sigmaOf = ({ rel, floor }: Measured, mu: number): number =>
  Math.sqrt((rel * mu) ** 2 + floor ** 2);

/** Standard deviations of the fitted places from the slopes of the readings there, what is usual counted in. */
function spreads(
  t: readonly number[],
  expected: (t: readonly number[]) => readonly number[],
  mu: readonly number[],
  read: readonly Measured[],
  out: ReadonlySet<number>,
): number[] {
  const h = 1e-4;
  const slopes = t.map((_, k) => {
    const moved = expected(t.map((v, j) => (j === k ? v + h : v)));
    return read.map((m, i) => (out.has(i) ? 0 : (moved[i]! - mu[i]!) / h / sigmaOf(m, mu[i]!)));
  });
  const normal = slopes.map((a, i) => slopes.map((b, j) => a.reduce((s, v, r) => s + v * b[r]!, 0) + (i === j ? 1 : 0))); // prettier-ignore
  return t.map((_, k) =>
    Math.sqrt(
      solveSpd(
        normal,
        t.map((__, j) => (j === k ? 1 : 0)),
      )[k]!,
    ),
  );
}
