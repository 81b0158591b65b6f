/** Tension along one run: coldest night, today, hottest day; the tensioner, the bends, the limit. */
import { scaleLinear } from 'd3-scale';
import { useMemo } from 'react';
import { say } from '../../core/base/units.js';
import { useUnits } from '../../ui/parts/Num.js';
import { useWidth } from '../../ui/parts/width.js';
import { useView, type Warmth } from '../../session/view.js';
import type { Strained } from './strained.js';
import { bayTensions, TensionLines } from './TensionLines.js';

const WIDE = 800;
const H = 230;
const PAD = { left: 58, right: 92, top: 14, bottom: 34 };
const LOOKS: readonly (readonly [Warmth, string, string | undefined])[] = [
  ['cold', 'coldest night', '7 4'],
  ['today', 'today', undefined],
  ['hot', 'hottest day', '2 3'],
];

export function TensionChart({ of }: { of: Strained }) {
  const units = useUnits();
  const [room, width] = useWidth<HTMLDivElement>(720);
  const W = Math.min(WIDE, Math.max(300, width));
  const warmth = useView((v) => v.warmth);
  const { bayed, strung, climate, row } = of;
  const { run } = bayed;
  const bays = useMemo(
    () => LOOKS.map(([w]) => bayTensions(bayed, strung, climate, w)),
    [bayed, strung, climate],
  );
  const most =
    1.05 * Math.max(row.limit_N, ...bays.flat().map((b) => Math.max(b.slides_N, b.held_N)));
  const x = scaleLinear([run.from_m, run.to_m], [PAD.left, W - PAD.right]);
  const y = scaleLinear([0, most], [H - PAD.bottom, PAD.top]);
  const bends = bayed.posts.filter((p) => p.role === 'bend');
  // Words at the right, one under another.
  const words = LOOKS.map(([w, name], k) => ({ w, name, y: y(bays[k]!.at(-1)!.slides_N) })).sort((a, b) => a.y - b.y); // prettier-ignore
  words.forEach((word, k) => {
    if (k > 0) word.y = Math.max(word.y, words[k - 1]!.y + 14);
  });
  return (
    <div ref={room}>
      <svg
        viewBox={`0 0 ${W} ${H}`}
        width={W}
        height={H}
        role="img"
        aria-label={`Tension along the run. ${LOOKS.map(([, name], k) => `${name}: ${say(Math.min(...bays[k]!.map((b) => b.slides_N)), 'force', units)} to ${say(Math.max(...bays[k]!.map((b) => b.slides_N)), 'force', units)}`).join('; ')}; limit ${say(row.limit_N, 'force', units)}.`}
      >
        {y.ticks(5).map((n) => (
          <g key={n}>
            <path d={`M${PAD.left} ${y(n)}H${W - PAD.right}`} stroke="var(--rule)" />
            <text
              x={PAD.left - 5}
              y={y(n) + 4}
              fontSize={11}
              textAnchor="end"
              fill="var(--soft)"
              className="figure"
            >
              {say(n, 'force', units)}
            </text>
          </g>
        ))}
        {x.ticks(Math.max(2, Math.floor(W / 100))).map((s) => (
          <text
            key={s}
            x={x(s)}
            y={H - 14}
            fontSize={11}
            textAnchor="middle"
            fill="var(--soft)"
            className="figure"
          >
            {say(s, 'length', units)}
          </text>
        ))}
        {bayed.posts.map((p) => (
          <path
            key={p.s_m}
            d={`M${x(p.s_m)} ${H - PAD.bottom}v${p.role === 'line' ? 4 : 8}`}
            stroke="var(--soft)"
            strokeWidth={p.role === 'line' ? 0.6 : 1.4}
          />
        ))}
        {bends.map((p) => (
          <g key={p.s_m}>
            <path
              d={`M${x(p.s_m)} ${PAD.top}V${H - PAD.bottom}`}
              stroke="var(--soft)"
              strokeDasharray="1 4"
            />
            <text x={x(p.s_m) + 3} y={PAD.top + 8} fontSize={10.5} fill="var(--soft)">
              bend
            </text>
          </g>
        ))}
        <path
          d={`M${PAD.left} ${y(row.limit_N)}H${W - PAD.right}`}
          stroke="var(--stop)"
          strokeDasharray="9 4 2 4"
        />
        <text x={W - PAD.right + 4} y={y(row.limit_N) + 4} fontSize={11} fill="var(--stop)">
          limit, coldest
        </text>
        {LOOKS.map(([w, , dash], k) => (
          <TensionLines
            key={w}
            bays={bays[k]!}
            x={x}
            y={y}
            limit_N={row.limit_N}
            strong={w === warmth}
            {...(dash ? { dash } : {})}
          />
        ))}
        {words.map((word) => (
          <text
            key={word.w}
            x={W - PAD.right + 4}
            y={word.y + 4}
            fontSize={11}
            fill="var(--ink)"
            fontWeight={word.w === warmth ? 700 : 400}
          >
            {word.name}
          </text>
        ))}
        <g transform={`translate(${x(row.at_m)},${H - PAD.bottom})`}>
          <circle r={6} fill="var(--panel)" stroke="var(--ink)" strokeWidth={1.6} />
          <path d="M-6 0H6M0 -6V6" stroke="var(--ink)" strokeWidth={1.2} />
          <text
            y={-11}
            fontSize={11}
            textAnchor="middle"
            fill="var(--ink)"
            stroke="var(--panel)"
            strokeWidth={3}
            paintOrder="stroke"
          >
            {of.line.tensioner ? 'tensioner' : 'pulled from here'}
          </text>
        </g>
      </svg>
      <p className="label">
        Lines: the wire slides over its posts as far as friction lets it. Bands: as far as it would
        be if it were held fast at every post.
      </p>
    </div>
  );
}
