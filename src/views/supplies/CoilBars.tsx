/** Each coil as a bar, from what comes off first: runs, joins marked at their ends, short pieces, what is left. */
import { say } from '../../core/base/units.js';
import type { CutCoil } from '../../core/supplies/mixedCoils.js';
import type { CutRun, WireCut } from '../../core/supplies/wireCuts.js';
import { useSession } from '../../session/session.js';
import { useUnits } from '../../ui/parts/Num.js';

const H = 26;

export function CoilBars({ cut }: { cut: WireCut }) {
  const longest = Math.max(...cut.cutting.coils.map((c) => c.length_m));
  const cuts = cutsOf(cut);
  return (
    <ol className="space-y-1" aria-label="Coils as they are cut">
      {cut.cutting.coils.map((coil, k) => (
        <li key={k} className="grid grid-cols-[2.5rem_1fr] items-center gap-2">
          <span className="figure text-right">{k + 1}</span>
          <Bar coil={coil} cut={cut} longest={longest} joined={cuts} />
        </li>
      ))}
    </ol>
  );
}

/** Runs that are in more than one piece. */
function cutsOf({ cutting }: WireCut): ReadonlySet<number> {
  const seen = new Map<number, number>();
  for (const { pieces } of cutting.coils)
    for (const { run } of pieces) seen.set(run, (seen.get(run) ?? 0) + 1);
  return new Set([...seen].filter(([, n]) => n > 1).map(([run]) => run));
}

/** A run in a few words: line, which of its runs, strand. */
export const runWords = (run: CutRun, lines: Readonly<Record<string, { readonly name: string }>>): string =>
  `${lines[run.line]?.name ?? run.line}, run ${run.run + 1}, strand ${run.strand}`; // prettier-ignore

interface BarProps {
  readonly coil: CutCoil;
  readonly cut: WireCut;
  readonly longest: number;
  readonly joined: ReadonlySet<number>;
}

function Bar({ coil, cut, longest, joined }: BarProps) {
  const lines = useSession((s) => s.plan.lines);
  const units = useUnits();
  const shorts_m = coil.shorts.reduce((sum, k) => sum + cut.shorts[k]!.length_m, 0);
  let at = 0;
  const share = (m: number) => (1000 * m) / longest;
  const words = [
    ...coil.pieces.map(({ run, length_m }) => `${runWords(cut.runs[run]!, lines)} ${say(length_m, 'length', units)}${joined.has(run) ? ', joined' : ''}`), // prettier-ignore
    ...(shorts_m > 0 ? [`short pieces ${say(shorts_m, 'length', units)}`] : []),
    `left ${say(coil.left_m, 'length', units)}`,
  ].join('; ');
  return (
    <svg
      viewBox={`0 0 1000 ${H}`}
      preserveAspectRatio="none"
      className="block h-[26px] w-full"
      role="img"
      aria-label={`Coil of ${say(coil.length_m, 'length', units)}${coil.reel === null ? ', begun' : ''}: ${words}`}
    >
      {coil.pieces.map(({ run, length_m }, k) => {
        const x = share(at);
        at += length_m;
        const w = share(length_m);
        const own = cut.runs[run]!;
        return (
          <g key={k}>
            <title>{`${runWords(own, lines)}: ${say(length_m, 'length', units)}`}</title>
            <rect
              x={x}
              y={3}
              width={w}
              height={H - 6}
              className={k % 2 ? 'fill-hover stroke-ink' : 'fill-panel stroke-ink'}
              strokeWidth={1}
              vectorEffect="non-scaling-stroke"
            />
            {joined.has(run) && (
              <line
                x1={x + w}
                x2={x + w}
                y1={0}
                y2={H}
                className="stroke-accent"
                strokeWidth={4}
                vectorEffect="non-scaling-stroke"
              />
            )}
          </g>
        );
      })}
      {shorts_m > 0 && (
        <rect x={share(at)} y={8} width={share(shorts_m)} height={H - 16} className="fill-ink">
          <title>{`short pieces: ${say(shorts_m, 'length', units)}`}</title>
        </rect>
      )}
      <rect
        x={0}
        y={3}
        width={share(coil.length_m)}
        height={H - 6}
        fill="none"
        className="stroke-ink"
        strokeWidth={1}
        strokeDasharray={coil.reel === null ? '5 3' : undefined}
        vectorEffect="non-scaling-stroke"
      />
    </svg>
  );
}
