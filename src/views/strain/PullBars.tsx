/** Tension on the coldest night, today and on the hottest day as bars against the limit, by run and wire. */
import { say } from '../../core/base/units.js';
import { recordOf } from '../../core/plan/catalogue.js';
import type { LineReport, Strain } from '../../core/report/schema.js';
import { useCatalogue } from '../../session/catalogue.js';
import { useView, type Warmth } from '../../session/view.js';
import { useUnits } from '../../ui/parts/Num.js';

const ROWS: readonly (readonly [Warmth, string])[] = [
  ['cold', 'coldest night'],
  ['today', 'today'],
  ['hot', 'hottest day'],
];
const LEFT = 86;
const WIDTH = 420;
const ROW = 17;

/** Strands of one run and wire pull alike: each kind once, with how many. */
function kinds(strain: readonly Strain[]): { one: Strain; count: number }[] {
  const by = new Map<string, { one: Strain; count: number }>();
  for (const s of strain) {
    const key = `${s.run} ${s.wire} ${s.bay_m} ${s.today_N.toFixed(1)}`;
    const known = by.get(key);
    if (known) known.count++;
    else by.set(key, { one: s, count: 1 });
  }
  return [...by.values()];
}

export function PullBars({ report }: { report: LineReport }) {
  const units = useUnits();
  const cat = useCatalogue();
  const warmth = useView((v) => v.warmth);
  const list = kinds(report.strain);
  const most = Math.max(1, ...list.flatMap(({ one }) => [one.cold_N, one.hot_N, one.limit_N])) * 1.12; // prettier-ignore
  const x = (n: number) => LEFT + (Math.max(0, n) / most) * (WIDTH - LEFT - 60);
  return (
    <ul aria-label="Tension against the limit" className="flex flex-wrap gap-x-8 gap-y-2">
      {list.map(({ one, count }) => {
        const run = report.runs[one.run]!;
        const said = `Run ${one.run + 1}, ${say(run.ground_m, 'length', units)}: ${count > 1 ? `${count} strands of ` : ''}${recordOf(cat.wires, one.wire).name}`;
        return (
          <li key={`${one.run}${one.wire}${one.bay_m}`} className="w-full max-w-[30rem]">
            <p className="font-semibold">{said}</p>
            <svg
              viewBox={`0 0 ${WIDTH} ${ROWS.length * ROW + 16}`}
              className="w-full"
              role="img"
              aria-label={`${said}: ${ROWS.map(([w, words]) => `${words} ${say(one[`${w}_N`], 'force', units)}`).join(', ')}; limit ${say(one.limit_N, 'force', units)}`}
            >
              {ROWS.map(([w, words], i) => {
                const n = one[`${w}_N`];
                const over = n > one.limit_N;
                return (
                  <g key={w} transform={`translate(0,${i * ROW})`}>
                    <text
                      x={0}
                      y={12}
                      fontSize={11}
                      fill="var(--soft)"
                      fontWeight={w === warmth ? 700 : 400}
                    >
                      {words}
                    </text>
                    <rect
                      x={LEFT}
                      y={3}
                      width={Math.max(1, x(n) - LEFT)}
                      height={10}
                      fill={over ? 'var(--stop)' : w === warmth ? 'var(--ink)' : 'var(--soft)'}
                    />
                    <text x={x(n) + 4} y={12} fontSize={11} className="figure" fill="var(--ink)">
                      {say(n, 'force', units)}
                      {over ? ' over' : ''}
                    </text>
                  </g>
                );
              })}
              <path
                d={`M${x(one.limit_N)} 0V${ROWS.length * ROW + 2}`}
                stroke="var(--ink)"
                strokeWidth={1.4}
                strokeDasharray="4 3"
              />
              <text
                x={x(one.limit_N)}
                y={ROWS.length * ROW + 13}
                fontSize={10.5}
                textAnchor="middle"
                fill="var(--soft)"
              >
                limit {say(one.limit_N, 'force', units)}
              </text>
            </svg>
          </li>
        );
      })}
    </ul>
  );
}
