/** Wrapped round its corners, or separate runs: both ways of the line side by side, which one, and why. */
import { say } from '../../core/base/units.js';
import type { BothWays, Way } from '../../core/bothWays.js';
import { turnsOf } from '../../core/wire/turns.js';
import { figure, recordOf } from '../../core/plan/catalogue.js';
import { usePower } from '../../session/power.js';
import { commit } from '../../session/session.js';
import { Asked } from '../../ui/parts/Asked.js';
import { REFERENCE_C } from '../../core/wire/strung.js';
import { useMoney } from '../../ui/parts/money.js';
import { Button } from '../../ui/parts/Button.js';
import { DataTable } from '../../ui/parts/DataTable.js';
import { Num, useUnits } from '../../ui/parts/Num.js';
import { useWidth } from '../../ui/parts/width.js';
import { SLIDES, WORK } from './origins.js';
import type { Strained } from './strained.js';

export function BothWaysPart({ of }: { of: Strained }) {
  const { line, cat } = of;
  const answer = usePower(`both ways ${line.id}`, (api) => api.bothWays(line.id));
  const { value, waiting } = answer;
  const turns = turnsOf(line, cat);
  if (turns.length === 0 || (!value && !waiting)) return null;
  return (
    <section aria-label="Wrapped or separate" className="mt-5" aria-busy={waiting}>
      <h3 className="heading">Round its corners, or separate runs</h3>
      <Asked of={answer} doing="Working both ways out" className="label" />
      {value && <Told both={value} of={of} />}
      {value && <Sides both={value} of={of} />}
      <p className="label mt-1">
        {value?.now === 'mixed' ? 'Now some corners are strained off and some are not.' : null}{' '}
        Friction at a bend {figure(cat, 'wire.frictionBend')}: one right angle lets{' '}
        {Math.round(100 * Math.exp((-figure(cat, 'wire.frictionBend') * Math.PI) / 2))} % through.
      </p>
    </section>
  );
}

/** Which, and the figure that decides. */
function Told({ both, of: { line } }: { both: BothWays; of: Strained }) {
  const units = useUnits();
  const { separate, wrapped, set_N, now, corners } = both;
  const better = separate.least_N / Math.max(1, wrapped.least_N);
  const holds = wrapped.corners.every((c) => c.share <= 1);
  const pays = better > 1.15 || !holds;
  const make = (kind: 'corner' | 'bend', words: string) =>
    commit(words, (d) => {
      for (const i of corners) d.lines[line.id]!.vertices[i]!.kind = kind;
    });
  return (
    <p className="max-w-[46rem]">
      <strong>{pays ? 'Separate runs.' : 'Either will do.'}</strong>{' '}
      {pays
        ? `Of ${say(set_N, 'force', units)} at the tensioner the slackest bay keeps ${say(separate.least_N, 'force', units)}, wrapped ${say(wrapped.least_N, 'force', units)}${holds ? '' : ', and a corner post would not hold what pulls it sideways'}. That is worth ${say(Math.max(0, separate.hours - wrapped.hours), 'hours', units)} more of work.`
        : `Wrapped, the slackest bay still keeps ${say(wrapped.least_N, 'force', units)} of ${say(set_N, 'force', units)}, for ${say(Math.max(0, separate.hours - wrapped.hours), 'hours', units)} less of work.`}{' '}
      {now !== 'separate' && (
        <Button onClick={() => make('corner', `corners of ${line.name} strained off`)}>
          Strain it off at each corner
        </Button>
      )}{' '}
      {now !== 'wrapped' && !pays && (
        <Button onClick={() => make('bend', `wire of ${line.name} run round its corners`)}>
          Run it round
        </Button>
      )}
    </p>
  );
}

function Sides({ both, of: { cat } }: { both: BothWays; of: Strained }) {
  const units = useUnits();
  const money = useMoney();
  const corners = (w: Way) =>
    w.corners.map((c) => `${Math.round(c.turn_deg)}°: ${[...new Set(c.kinds.map((k) => recordOf(cat.ends, k).name.toLowerCase()))].join(', ') || 'no post of its own'}, ${say(c.pull_N, 'force', units)}, ${say(c.share, 'percent', units)} used`); // prettier-ignore
  const rows: readonly (readonly [string, Way])[] = [
    ['separate runs', both.separate],
    ['wrapped', both.wrapped],
  ];
  return (
    <>
      <BothDrawn both={both} />
      <DataTable
        label="Both ways"
        className="!w-auto"
        rows={rows}
        keyOf={([name]) => name}
        chosen={([name]) =>
          (both.now === 'separate') === (name === 'separate runs') && both.now !== 'mixed'
        }
        columns={[
          { name: 'way', head: true, cell: ([name]) => name },
          { name: 'runs', n: true, cell: ([, w]) => <Num value={w.runs} q="count" /> },
          {
            name: 'slackest bay',
            n: true,
            from: SLIDES,
            cell: ([, w]) => <Num value={w.least_N} q="force" />,
          },
          { name: 'mean', n: true, cell: ([, w]) => <Num value={w.mean_N} q="force" /> },
          { name: 'ties', n: true, cell: ([, w]) => <Num value={w.ties} q="count" /> },
          { name: 'tensioners', n: true, cell: ([, w]) => <Num value={w.tensioners} q="count" /> },
          {
            name: 'hours',
            n: true,
            from: WORK,
            cell: ([, w]) => <Num value={w.hours} q="hours" />,
          },
          { name: 'parts', n: true, cell: ([, w]) => money(w.cost) },
          {
            name: 'corner posts, pull on the coldest night',
            cell: ([, w]) => (
              <ul>
                {corners(w).map((c, k) => (
                  <li key={k}>{c}</li>
                ))}
              </ul>
            ),
          },
        ]}
      />
    </>
  );
}

const WIDE = 800;
const H = 110;

/** Tension by bay, both ways on one axis. */
function BothDrawn({ both }: { both: BothWays }) {
  const units = useUnits();
  const [room, width] = useWidth<HTMLDivElement>(720);
  const W = Math.min(WIDE, Math.max(300, width));
  const { separate, wrapped, set_N } = both;
  const to = Math.max(...separate.bays.map((b) => b.to_m));
  const x = (s: number) => 58 + (s / to) * (W - 58 - 80);
  const y = (n: number) => H - 18 - (n / (1.15 * set_N)) * (H - 26);
  const steps = (w: Way) =>
    w.bays.map((b, k) => `${k && w.bays[k - 1]!.to_m > b.from_m - 0.05 ? 'L' : 'M'}${x(b.from_m).toFixed(1)} ${y(b.tension_N).toFixed(1)}L${x(b.to_m).toFixed(1)} ${y(b.tension_N).toFixed(1)}`).join(''); // prettier-ignore
  return (
    <div ref={room}>
      <svg
        viewBox={`0 0 ${W} ${H}`}
        className="my-1"
        width={W}
        height={H}
        role="img"
        aria-label={`Tension along the line at ${say(REFERENCE_C, 'temperature', units)}: in separate runs from ${say(separate.least_N, 'force', units)}, wrapped from ${say(wrapped.least_N, 'force', units)}, set to ${say(set_N, 'force', units)}`}
      >
        {[0, set_N / 2, set_N].map((n) => (
          <g key={n}>
            <path d={`M58 ${y(n)}H${W - 80}`} stroke="var(--rule)" />
            <text x={54} y={y(n) + 4} fontSize={10.5} textAnchor="end" fill="var(--soft)">
              {say(n, 'force', units)}
            </text>
          </g>
        ))}
        {separate.corners.map((c) => (
          <g key={c.at_m}>
            <path d={`M${x(c.at_m)} 4V${H - 18}`} stroke="var(--soft)" strokeDasharray="1 4" />
            <text x={x(c.at_m)} y={H - 4} fontSize={10.5} textAnchor="middle" fill="var(--soft)">
              {say(c.at_m, 'length', units)}
            </text>
          </g>
        ))}
        <path d={steps(separate)} fill="none" stroke="var(--ink)" strokeWidth={2} />
        <path
          d={steps(wrapped)}
          fill="none"
          stroke="var(--ink)"
          strokeWidth={1.4}
          strokeDasharray="6 4"
        />
        <text
          x={W - 76}
          y={y(separate.bays.at(-1)!.tension_N) + 4}
          fontSize={11}
          fill="var(--ink)"
          fontWeight={600}
        >
          separate
        </text>
        <text
          x={W - 76}
          y={Math.max(
            y(wrapped.bays.at(-1)!.tension_N) + 4,
            y(separate.bays.at(-1)!.tension_N) + 18,
          )}
          fontSize={11}
          fill="var(--ink)"
        >
          wrapped
        </text>
      </svg>
    </div>
  );
}
