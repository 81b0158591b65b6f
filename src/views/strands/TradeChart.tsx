import { DataTable } from '../../ui/parts/DataTable.js';
import { scaleLinear } from 'd3-scale';
import { line as pathOf } from 'd3-shape';
import { figureText, FOOT, say, unitOf } from '../../core/base/units.js';
import { bayFor, costAt, type Trade } from '../../core/compare/trade.js';
import { recordOf } from '../../core/plan/catalogue.js';
import type { Line } from '../../core/plan/schema.js';
import type { LineReport } from '../../core/report/schema.js';
import { hung, tighterProposal } from '../../core/strands/proposal.js';
import { Part } from '../../ui/parts/controls.js';
import { Num, useUnits, type Origin } from '../../ui/parts/Num.js';
import { useCatalogue } from '../../session/catalogue.js';
import { restring } from '../../core/edit/joining.js';
import { commit, useSession } from '../../session/session.js';
import { usePerMetre } from '../../ui/parts/money.js';
import { Button } from '../../ui/parts/Button.js';

const HOLDS: Origin = {
  kind: 'formula',
  title: 'Longest bay that holds',
  formula: '2 d(F, T hot, L) ≤ opening that is known to hold + what the gaps are smaller',
  source:
    'Two strands pushed apart at mid-bay on the hottest day; the limit is what the same push opens in a fence that practice says just holds',
  inputs: [{ name: 'Push', path: 'defaults.wire.pushForce.value', quantity: 'force' }],
};
const COST: Origin = {
  kind: 'formula',
  title: 'Cost by the metre',
  formula: 'ends + n x strand + (post + n x insulator) / bay',
  source: 'Prices of this property; gates and energiser left out',
};

/** Posts and strands trade against one another: which pairs hold this stock, and what each costs. */
export function TradePart({ line, report }: { line: Line; report: LineReport }) {
  const choices = useSession((s) => s.choices);
  const units = useUnits();
  const cat = useCatalogue();
  const perMetre = usePerMetre();
  if (!choices || choices.line !== line.id) return <p role="status">Working it out …</p>;
  const { trade } = choices;
  const need = report.requirement;
  if (!trade || !need)
    return <p>Wants stock, and at least one strand of plain wire on this line.</p>;
  const bayOf = (bay: number) => Math.min(bay, trade.mostBay_m);
  const rows = trade.counts.map((c) => {
    const bay = bayOf(c.bay_m);
    return { ...c, bay, cost: costAt(trade, c.count, Math.max(bay, 0.5)) };
  });
  const able = rows.filter((r) => r.bay >= 1);
  const best = able.reduce<(typeof able)[number] | null>(
    (a, b) => (!a || b.cost < a.cost - 1e-9 ? b : a),
    null,
  );
  const now = {
    count: line.strands.length,
    bay: Math.max(0, ...report.stretches.map((s) => s.bay_m)),
  };
  const take = (r: (typeof rows)[number]) => {
    const found = tighterProposal(need, r.tighter_m);
    if (!found) return;
    const strands = hung(found, need, line.strands, line.post, cat);
    commit(`${r.count} strands and their bays on ${line.name}`, (d) => {
      const l = d.lines[line.id]!;
      restring(d, line.id, strands);
      l.maxBay_m = Math.floor(r.bay * 10 + 1e-6) / 10;
      delete l.placed;
    });
  };
  return (
    <Part title="Posts or strands">
      <Chart trade={trade} now={now} best={best} />
      <DataTable
        label="Posts against strands"
        className="mt-3 max-w-[640px]"
        rows={rows}
        keyOf={(r) => r.count}
        rowProps={(r) => ({ className: r === best ? 'bg-chosen' : '' })}
        columns={[
          {
            name: 'strands',
            n: true,
            className: 'figure',
            cell: (r) => (
              <>
                {r.count}
                {r === best && <span className="text-good"> ★ cheapest</span>}
              </>
            ),
          },
          {
            name: 'widest gap, low down',
            n: true,
            cell: (r) => <Num value={r.gap_m} q="height" />,
          },
          {
            name: 'longest bay that holds',
            from: HOLDS,
            n: true,
            cell: (r) => (
              <>
                <Num value={r.bay} q="tape" />
                {r.bay_m > trade.mostBay_m && <span className="label"> most on this ground</span>}
              </>
            ),
          },
          { name: 'cost', from: COST, n: true, className: 'figure', cell: (r) => perMetre(r.cost) },
          {
            name: 'take it',
            quiet: true,
            n: true,
            cell: (r) => (
              <Button
                disabled={r.bay < 1}
                aria-label={`Take ${r.count} strands on bays of ${say(r.bay, 'tape', units)}`}
                onClick={() => take(r)}
              >
                Take
              </Button>
            ),
          },
        ]}
      />
      <p className="label mt-2 max-w-[640px]">
        At <Num value={trade.hot_N} q="force" /> in the wire on the hottest day, with{' '}
        {recordOf(cat.posts, line.post).name.toLowerCase()} posts. More strands make the gaps
        smaller, so that a push may open them further; tighter wire does more than either.
      </p>
    </Part>
  );
}

const W = 620;
const ROW = 30;
const LEFT = 74;
const TOP = 24;

function Chart({
  trade,
  now,
  best,
}: {
  trade: Trade;
  now: { count: number; bay: number };
  best: { count: number; bay: number } | null;
}) {
  const units = useUnits();
  const perMetre = usePerMetre();
  const counts = trade.counts.map((c) => c.count);
  const furthest = Math.max(trade.mostBay_m, now.bay, ...trade.counts.map((c) => c.bay_m));
  const most = Math.min(16, Math.ceil(Math.min(furthest, trade.mostBay_m * 1.8) + 1));
  const x = scaleLinear([1, most], [LEFT, W - 14]);
  const bottom = TOP + counts.length * ROW;
  const y = (count: number) => bottom - (count - counts[0]! + 0.5) * ROW;
  const ticks = x.ticks(8);
  const contours = apart(contoursOf(trade, most, units === 'metric' ? 1 : FOOT), (c) => {
    const end = c.points.at(-1)!;
    return [x(end.bay), y(end.count)];
  });
  const draw = pathOf<readonly [number, number]>();
  return (
    <svg
      viewBox={`0 0 ${W} ${bottom + 44}`}
      className="w-full max-w-[680px]"
      role="img"
      aria-label={`Bay length against strand count. ${trade.counts.map((c) => `${c.count} strands hold on bays up to ${say(Math.min(c.bay_m, trade.mostBay_m), 'tape', units)}`).join('; ')}.`}
    >
      <defs>
        <pattern
          id="holds"
          width="7"
          height="7"
          patternUnits="userSpaceOnUse"
          patternTransform="rotate(45)"
        >
          <path d="M0 0V7" stroke="var(--good)" strokeWidth="2" />
        </pattern>
      </defs>
      {trade.counts.map((c) => {
        const end = Math.min(c.bay_m, most);
        const allowed = Math.min(end, trade.mostBay_m);
        return (
          <g key={c.count}>
            <text
              x={LEFT - 8}
              y={y(c.count) + 4}
              textAnchor="end"
              className="fill-ink text-[0.929rem]"
            >
              {c.count} strands
            </text>
            {allowed > 1 && (
              <rect
                x={x(1)}
                y={y(c.count) - ROW / 2 + 1}
                width={x(allowed) - x(1)}
                height={ROW - 2}
                fill="url(#holds)"
                opacity={0.55}
              />
            )}
            {end > 1 && (
              <path
                d={`M${x(end)} ${y(c.count) - ROW / 2}v${ROW}`}
                stroke="var(--good)"
                strokeWidth={2.5}
              />
            )}
          </g>
        );
      })}
      <path d={`M${LEFT} ${bottom}H${W - 14}`} stroke="var(--ink)" />
      <path
        d={`M${x(trade.mostBay_m)} ${TOP - 4}V${bottom + 6}`}
        stroke="var(--ink)"
        strokeWidth={1.5}
        strokeDasharray="6 4"
      />
      {contours.map((c) => (
        <g key={c.cost}>
          <path
            d={draw(c.points.map((p) => [x(p.bay), y(p.count)]))!}
            fill="none"
            stroke="var(--ink)"
            strokeWidth={1}
          />
          <text
            x={x(c.points.at(-1)!.bay)}
            y={y(c.points.at(-1)!.count) - 5}
            textAnchor="middle"
            className="figure fill-ink text-[0.821rem]"
            stroke="var(--sheet)"
            strokeWidth={4}
            paintOrder="stroke"
          >
            {perMetre(c.cost)}
          </text>
        </g>
      ))}
      {ticks.map((t) => (
        <g key={t}>
          <path d={`M${x(t)} ${bottom}v5`} stroke="var(--ink)" />
          <text
            x={x(t)}
            y={bottom + 18}
            textAnchor="middle"
            className="figure fill-soft text-[0.857rem]"
          >
            {figureText(t, 'length', units)}
          </text>
        </g>
      ))}
      <text x={W - 14} y={bottom + 36} textAnchor="end" className="fill-soft text-[0.893rem]">
        bay, {unitOf('length', units)} · hatched: holds this stock · dashed: longest bay on this
        ground
      </text>
      {best && (
        <text
          x={x(best.bay) - 9}
          y={y(best.count) + 6}
          textAnchor="middle"
          className="fill-ink text-[1.214rem]"
          stroke="var(--sheet)"
          strokeWidth={3}
          paintOrder="stroke"
        >
          ★
        </text>
      )}
      {counts.includes(now.count) && now.bay >= 1 && now.bay <= most && (
        <g>
          <circle
            cx={x(now.bay)}
            cy={y(now.count)}
            r={6}
            fill="var(--sheet)"
            stroke="var(--live)"
            strokeWidth={3}
          />
          <text
            x={x(now.bay)}
            y={y(now.count) - 10}
            textAnchor="middle"
            className="fill-ink text-[0.857rem] font-semibold"
            stroke="var(--sheet)"
            strokeWidth={4}
            paintOrder="stroke"
          >
            stands
          </text>
        </g>
      )}
    </svg>
  );
}

/** Those whose labels do not lie on one another. */
function apart<T>(list: readonly T[], place: (item: T) => readonly [number, number]): T[] {
  const kept: T[] = [];
  for (const item of list) {
    const [x, y] = place(item);
    const clear = kept.every((k) => {
      const [a, b] = place(k);
      return Math.abs(a - x) > 56 || Math.abs(b - y) > 14;
    });
    if (clear) kept.push(item);
  }
  return kept;
}

/** Lines of equal cost: for each count the bay that it buys. */
function contoursOf(trade: Trade, most: number, unit_m: number) {
  const counts = trade.counts.map((c) => c.count);
  const low = costAt(trade, counts[0]!, most);
  const high = costAt(trade, counts.at(-1)!, 2);
  const levels = scaleLinear([low * unit_m, high * unit_m], [0, 1])
    .ticks(6)
    .map((c) => c / unit_m);
  return levels.flatMap((cost) => {
    const points = counts.flatMap((count) => {
      const bay = bayFor(trade, count, cost);
      return bay !== null && bay >= 1 && bay <= most ? [{ count, bay }] : [];
    });
    return points.length > 1 ? [{ cost, points }] : [];
  });
}
