/** The places of the posts as they lie on the tape: rows of it, each post at its figure. */
import { figureText, FOOT, say } from '../../core/base/units.js';
import type { Line } from '../../core/plan/schema.js';
import type { LineReport } from '../../core/report/schema.js';
import { look, useView } from '../../session/view.js';
import { useUnits } from '../../ui/parts/Num.js';
import { useRoving } from '../../ui/parts/roving.js';
import { postNear } from './PostCard.js';

/** Tape on one row, m or ft. */
const ROW = { metric: 20, imperial: 60 } as const;
const WIDTH = 330;

export function Tape({ line, report }: { line: Line; report: LineReport }) {
  const units = useUnits();
  const cursor = useView((v) => v.cursor);
  const chosen = postNear(report.posts, cursor);
  const roving = useRoving<HTMLDivElement>('[data-post]');
  const per = ROW[units] * (units === 'metric' ? 1 : FOOT);
  return (
    <div
      {...roving}
      className="min-h-0 flex-1 overflow-x-hidden overflow-y-auto"
      role="group"
      aria-label={`Tape of ${line.name}`}
    >
      {report.runs.map((run, k) => {
        const own = report.posts
          .map((post, i) => ({ post, i }))
          .filter(({ post }) => post.s_m >= run.from_m - 1e-6 && post.s_m <= run.to_m + 1e-6);
        const start = own[0]?.post.tape_m ?? 0;
        const rows = Math.max(1, Math.ceil(run.ground_m / per - 1e-6));
        return (
          <section key={k} aria-label={`Run ${k + 1}`}>
            <p className="label pt-1">
              run {k + 1} of {report.runs.length}, {say(run.ground_m, 'tape', units)}
            </p>
            {Array.from({ length: rows }, (_, r) => {
              const last = r === rows - 1;
              const here = own.filter(({ post }) => {
                const t = post.tape_m - start;
                return t >= r * per - 1e-6 && (last || t < (r + 1) * per - 1e-6);
              });
              return (
                <svg key={r} viewBox={`0 0 ${WIDTH} 46`} className="w-full max-w-[34rem]">
                  <rect
                    x={6}
                    y={24}
                    width={WIDTH - 12}
                    height={10}
                    fill="var(--ground)"
                    stroke="var(--rule)"
                  />
                  {Array.from({ length: ROW[units] + 1 }, (__, m) => {
                    const x = 6 + (m / ROW[units]) * (WIDTH - 12);
                    return (
                      <g key={m}>
                        <path
                          d={`M${x} 34v${m % 5 === 0 ? -8 : -4}`}
                          stroke="var(--soft)"
                          strokeWidth={0.8}
                        />
                        {m % 10 === 0 && (
                          <text
                            x={x}
                            y={44}
                            fontSize={8.5}
                            fill="var(--soft)"
                            textAnchor={m === 0 ? 'start' : m === ROW[units] ? 'end' : 'middle'}
                          >
                            {r * ROW[units] + m}
                          </text>
                        )}
                      </g>
                    );
                  })}
                  {here.map(({ post, i }) => {
                    const t = post.tape_m - start;
                    const x = 6 + ((t - r * per) / per) * (WIDTH - 12);
                    const major = post.role !== 'line';
                    return (
                      <g
                        key={i}
                        data-post
                        role="button"
                        aria-label={`Post ${i + 1}, ${say(t, 'tape', units)}`}
                        aria-current={i === chosen ? 'true' : undefined}
                        className="cursor-pointer"
                        onClick={() => look({ cursor: post.s_m })}
                        onFocus={() => look({ cursor: post.s_m })}
                      >
                        <rect x={x - 8} y={2} width={16} height={34} fill="transparent" />
                        <path
                          d={`M${x} 18V36`}
                          stroke={i === chosen ? 'var(--pick)' : 'var(--ink)'}
                          strokeWidth={major ? 4 : 2.4}
                        />
                        <text
                          x={Math.min(Math.max(x, 14), WIDTH - 14)}
                          y={14}
                          fontSize={10}
                          fontWeight={i === chosen || major ? 700 : 500}
                          textAnchor="middle"
                          className="figure"
                          fill="var(--ink)"
                        >
                          {figureText(t, 'tape', units)}
                        </text>
                      </g>
                    );
                  })}
                </svg>
              );
            })}
          </section>
        );
      })}
    </div>
  );
}
