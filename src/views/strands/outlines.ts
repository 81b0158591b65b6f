/** Silhouettes of our own of the animals, for size: a body, a neck with its head, four legs. */

type Dot = readonly [number, number];
/** Shares of the shoulder height; the chest is at 0, and the animal looks to the left. */
interface Build {
  readonly long: number;
  readonly belly: number;
  readonly croup: number;
  /** From the withers over the neck to poll, muzzle and throat. */
  readonly head: readonly Dot[];
  readonly leg: number;
  readonly tail: readonly Dot[];
  /** Ears and horns, as strokes. */
  readonly crown: readonly (readonly Dot[])[];
}

// prettier-ignore
const BUILDS: Readonly<Record<string, Build>> = {
  cattle: {
    long: 1.2, belly: 0.42, croup: 1.0, leg: 0.1,
    head: [[0.24, 1], [-0.04, 1.04], [-0.2, 0.98], [-0.4, 0.74], [-0.36, 0.66], [-0.24, 0.68], [-0.1, 0.74], [0.02, 0.56]],
    tail: [[1.22, 0.92], [1.27, 0.8], [1.27, 0.42]], crown: [[[-0.08, 1.0], [-0.18, 1.1], [-0.16, 1.16]], [[-0.08, 0.98], [0.06, 0.94]]],
  },
  horse: {
    long: 1.06, belly: 0.54, croup: 1.0, leg: 0.085,
    head: [[0.26, 1], [0.02, 1.16], [-0.16, 1.36], [-0.24, 1.34], [-0.46, 1.02], [-0.42, 0.95], [-0.32, 0.98], [-0.14, 1.1], [0.02, 0.7]],
    tail: [[1.07, 0.94], [1.17, 0.8], [1.15, 0.4]], crown: [[[-0.18, 1.34], [-0.17, 1.44]]],
  },
  sheep: {
    long: 1.3, belly: 0.38, croup: 1.02, leg: 0.075,
    head: [[0.2, 1.0], [0.0, 1.12], [-0.14, 1.12], [-0.3, 0.9], [-0.26, 0.84], [-0.12, 0.88], [-0.02, 0.6]],
    tail: [[1.3, 0.9], [1.33, 0.72]], crown: [[[-0.06, 1.08], [0.08, 1.02]]],
  },
  goat: {
    long: 1.08, belly: 0.44, croup: 1.03, leg: 0.07,
    head: [[0.24, 1.0], [0.04, 1.14], [-0.12, 1.28], [-0.2, 1.24], [-0.34, 1.0], [-0.3, 0.94], [-0.14, 1.0], [0.02, 0.64]],
    tail: [[1.08, 1.0], [1.13, 1.1]], crown: [[[-0.13, 1.26], [-0.06, 1.4], [0.06, 1.46]], [[-0.28, 0.95], [-0.27, 0.82]], [[-0.1, 1.2], [0.02, 1.16]]],
  },
  pig: {
    long: 1.75, belly: 0.26, croup: 0.96, leg: 0.12,
    head: [[0.36, 1], [0.06, 0.98], [-0.14, 0.86], [-0.42, 0.56], [-0.4, 0.44], [-0.2, 0.42], [0.04, 0.36]],
    tail: [[1.75, 0.84], [1.83, 0.8], [1.8, 0.72]], crown: [[[-0.08, 0.88], [-0.2, 0.96], [-0.22, 0.82]]],
  },
  deer: {
    long: 1.05, belly: 0.56, croup: 1.0, leg: 0.06,
    head: [[0.24, 1], [0.04, 1.2], [-0.1, 1.46], [-0.18, 1.46], [-0.38, 1.28], [-0.35, 1.22], [-0.18, 1.26], [-0.02, 0.74]],
    tail: [[1.05, 0.96], [1.1, 0.84]], crown: [[[-0.1, 1.45], [0.02, 1.56]]],
  },
  fox: {
    long: 1.3, belly: 0.5, croup: 0.96, leg: 0.085,
    head: [[0.2, 1], [0.0, 1.12], [-0.14, 1.2], [-0.3, 1.06], [-0.52, 0.94], [-0.5, 0.9], [-0.26, 0.88], [-0.02, 0.64]],
    tail: [[1.3, 0.86], [1.6, 0.7], [1.95, 0.42]], crown: [[[-0.12, 1.16], [-0.1, 1.34], [-0.02, 1.14]]],
  },
  dog: {
    long: 1.16, belly: 0.48, croup: 0.97, leg: 0.09,
    head: [[0.22, 1], [0.02, 1.16], [-0.14, 1.26], [-0.26, 1.2], [-0.46, 1.06], [-0.44, 0.98], [-0.24, 0.96], [-0.02, 0.64]],
    tail: [[1.16, 0.92], [1.34, 1.0], [1.46, 1.16]], crown: [[[-0.1, 1.22], [0.0, 1.06]]],
  },
  wolf: {
    long: 1.18, belly: 0.5, croup: 0.95, leg: 0.085,
    head: [[0.22, 1], [0.0, 1.1], [-0.14, 1.18], [-0.28, 1.1], [-0.52, 0.98], [-0.5, 0.9], [-0.26, 0.86], [-0.04, 0.58]],
    tail: [[1.18, 0.86], [1.34, 0.68], [1.4, 0.4]], crown: [[[-0.12, 1.14], [-0.1, 1.3], [-0.03, 1.12]]],
  },
};

export interface Silhouette {
  /** Closed rounded shapes, metres along and up. */
  readonly shapes: readonly (readonly Dot[])[];
  readonly strokes: readonly (readonly Dot[])[];
  readonly legs: readonly (readonly Dot[])[];
  readonly leg_m: number;
  readonly from_m: number;
  readonly to_m: number;
  readonly tall_m: number;
}

/** The silhouette of an animal that stands so high at the shoulder. */
export function silhouetteOf(animal: string, shoulder_m: number): Silhouette {
  const b = BUILDS[animal] ?? BUILDS['cattle']!;
  const L = b.long;
  const trunk: Dot[] = [
    [0.22, 1],
    [L * 0.5, (1 + b.croup) / 2 - 0.01],
    [L * 0.88, b.croup],
    [L + 0.01, b.croup - 0.12],
    [L, b.belly + 0.16],
    [L * 0.8, b.belly + 0.05],
    [L * 0.5, b.belly],
    [0.16, b.belly + 0.02],
    [0.0, b.belly + 0.2],
    [-0.01, 0.8],
  ];
  const hip = L - 0.1;
  const legs: Dot[][] = [
    [[0.12, b.belly + 0.1], [0.1, b.belly * 0.5], [0.1, 0]],
    [[0.24, b.belly + 0.1], [0.25, b.belly * 0.5], [0.23, 0]],
    [[hip - 0.06, b.belly + 0.14], [hip - 0.03, b.belly * 0.55], [hip - 0.1, 0]],
    [[hip + 0.04, b.belly + 0.16], [hip + 0.1, b.belly * 0.55], [hip + 0.05, 0]],
  ]; // prettier-ignore
  const own = (dots: readonly Dot[]) => dots.map(([x, y]): Dot => [x * shoulder_m, y * shoulder_m]);
  const all = [...b.head, ...b.tail, ...b.crown.flat(), ...trunk];
  return {
    shapes: [own(trunk), own(b.head)],
    strokes: [own(b.tail), ...b.crown.map(own)],
    legs: legs.map(own),
    leg_m: b.leg * shoulder_m,
    from_m: Math.min(...all.map(([x]) => x)) * shoulder_m,
    to_m: Math.max(...all.map(([x]) => x)) * shoulder_m,
    tall_m: Math.max(...all.map(([, y]) => y)) * shoulder_m,
  };
}
