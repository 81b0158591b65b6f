/** Each coil as a bar, from what comes off first: runs, joins at their ends, short pieces, what is left. */
import { say } from '../../core/base/units.js';
import type { CutCoil } from '../../core/supplies/mixedCoils.js';
import type { CutRun, Span, WireCut } from '../../core/supplies/wireCuts.js';
import { useSession } from '../../session/session.js';
import { useUnits } from '../../ui/parts/Num.js';

export function CoilBars({ cut }: { cut: WireCut }) {
  const longest = Math.max(...cut.cutting.coils.map((c) => c.length_m));
  return (
    <>
      <ol className="space-y-1" aria-label="Coils as they are cut">
        {cut.cutting.coils.map((coil, k) => (
          <li key={k} className="grid grid-cols-[1.6rem_1fr] items-center gap-2">
            <span className="figure text-right">{k + 1}</span>
            <Bar coil={coil} cut={cut} longest={longest} spans={cut.spans[k]!} />
          </li>
        ))}
      </ol>
      <p className="label mt-1">
        Each piece: which strand from the ground, and its line. A thick end: joined to the next
        piece of that run. Dark: short pieces. Dashed: left over.
      </p>
    </>
  );
}

/** A run in a few words: line, which of its runs, strand. */
const runWords = (
  run: CutRun,
  lines: Readonly<Record<string, { readonly name: string }>>,
): string => `${lines[run.line]?.name ?? run.line}, run ${run.run + 1}, strand ${run.strand}`;

interface BarProps {
  readonly coil: CutCoil;
  readonly cut: WireCut;
  readonly longest: number;
  readonly spans: readonly Span[];
}

function Bar({ coil, cut, longest, spans }: BarProps) {
  const joined = (k: number) => spans[k]!.to_m !== null;
  const lines = useSession((s) => s.plan.lines);
  const units = useUnits();
  const length = (m: number) => say(m, 'length', units);
  const shorts_m = coil.shorts.reduce((sum, k) => sum + cut.shorts[k]!.length_m, 0);
  const width = (m: number) => ({ width: `${(100 * m) / coil.length_m}%` });
  const words = coil.pieces.map(({ run, length_m }, k) => `${runWords(cut.runs[run]!, lines)}: ${length(length_m)}${joined(k) ? ', joined' : ''}`); // prettier-ignore
  const rest = [
    ...(shorts_m > 0 ? [`short pieces ${length(shorts_m)}`] : []),
    `left ${length(coil.left_m)}`,
  ];
  return (
    <div
      role="img"
      aria-label={`Coil of ${length(coil.length_m)}${coil.reel === null ? ', begun' : ''}: ${[...words, ...rest].join('; ')}`}
      className={`border-ink flex h-[26px] overflow-hidden border ${coil.reel === null ? 'border-2' : ''}`}
      style={{ width: `${(100 * coil.length_m) / longest}%` }}
    >
      {coil.pieces.map(({ run, length_m }, k) => {
        const own = cut.runs[run]!;
        return (
          <span
            key={k}
            title={words[k]}
            style={width(length_m)}
            className={`min-w-0 truncate indent-[3px] text-[0.786rem] leading-[24px] font-stretch-[75%] ${k % 2 ? 'bg-hover' : 'bg-panel'} ${joined(k) ? 'border-live border-r-[5px]' : 'border-ink border-r'}`}
          >
            <span className="figure">{own.strand}</span> <bdi>{lines[own.line]?.name}</bdi>
          </span>
        );
      })}
      {shorts_m > 0 && <span title={rest[0]} style={width(shorts_m)} className="bg-ink shrink-0" />}
      {coil.left_m > 0.5 && (
        <span
          title={rest.at(-1)}
          style={width(coil.left_m)}
          className="border-soft my-[9px] shrink-0 border-t border-dashed"
        />
      )}
    </div>
  );
}
