/** The tension of each bay along a run as steps: sliding as a line, between that and held fast a band. */
import type { Plan } from '../../core/plan/schema.js';
import { apart, tensionsAt, type BayedRun, type Strung } from '../../core/wire/strung.js';
import type { Warmth } from '../../session/view.js';

export interface BayTension {
  readonly from_m: number;
  readonly to_m: number;
  readonly slides_N: number;
  readonly held_N: number;
}

/** Tensions of a run's bays at one of the three temperatures; a creeping wire has crept by the hottest day. */
export function bayTensions(
  { posts }: BayedRun,
  strung: Strung,
  climate: Plan['climate'],
  warmth: Warmth,
): BayTension[] {
  const stands = apart(posts);
  const crept = warmth === 'hot';
  const at = (held: boolean) => tensionsAt(strung, climate[`${warmth}_C`], { held, crept });
  const [slides, fast] = [at(false), at(true)];
  return [...slides].map((slides_N, k) => ({
    from_m: stands[k]!.s_m,
    to_m: stands[k + 1]!.s_m,
    slides_N,
    held_N: fast[k]!,
  }));
}

type Scale = (v: number) => number;

interface LinesProps {
  readonly bays: readonly BayTension[];
  readonly x: Scale;
  readonly y: Scale;
  readonly limit_N: number;
  readonly strong?: boolean;
  readonly dash?: string;
}

export function TensionLines({ bays, x, y, limit_N, strong = false, dash }: LinesProps) {
  const steps = (of: (b: BayTension) => number): string =>
    bays.map((b, k) => `${k ? 'L' : 'M'}${x(b.from_m).toFixed(1)} ${y(of(b)).toFixed(1)}L${x(b.to_m).toFixed(1)} ${y(of(b)).toFixed(1)}`).join(''); // prettier-ignore
  const back = [...bays].reverse().map((b) => `L${x(b.to_m).toFixed(1)} ${y(b.held_N).toFixed(1)}L${x(b.from_m).toFixed(1)} ${y(b.held_N).toFixed(1)}`).join(''); // prettier-ignore
  const over = bays.some((b) => b.slides_N > limit_N);
  return (
    <>
      <path d={`${steps((b) => b.slides_N)}${back}Z`} fill="var(--soft)" opacity={0.25} />
      <path
        d={steps((b) => b.slides_N)}
        fill="none"
        stroke={over ? 'var(--stop)' : 'var(--ink)'}
        strokeWidth={strong ? 2.2 : 1.3}
        strokeDasharray={dash}
      />
    </>
  );
}
