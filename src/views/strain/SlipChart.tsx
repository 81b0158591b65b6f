/** What the knots' slip leaves of the tension against the length of the run, with no tensioner in the wire. */
import { say, toField, unitOf } from '../../core/base/units.js';
import { figure, recordOf } from '../../core/plan/catalogue.js';
import { leftBySlip } from '../../core/wire/stringing.js';
import { jointsOfLine, wireOf } from '../../core/wire/wires.js';
import { Num, useUnits, WhereFrom } from '../../ui/parts/Num.js';
import { LineChart } from '../../ui/parts/LineChart.js';
import { SLIP } from './origins.js';
import type { Strained } from './strained.js';

const LENGTHS = [10, 15, 20, 30, 40, 50, 60, 80, 100, 125, 150, 175, 200, 250, 300, 400, 500];

export function SlipChart({ of }: { of: Strained }) {
  const { line, row, wire, cat, bayed } = of;
  const units = useUnits();
  const { EA_N } = wireOf(wire, cat);
  const tie = recordOf(cat.joints, jointsOfLine(line).tie);
  const left = (length: number, slip = tie.slip_m) =>
    leftBySlip(row.at15_N, length, 2 * slip, EA_N);
  const short = figure(cat, 'wire.springRunMax');
  const own = bayed.run.ground_m;
  const X = (m: number) => Number(toField(m, 'length', units));
  const Y = (n: number) => Number(toField(n, 'force', units));
  const curve = (slip: number) => LENGTHS.map((m) => ({ x: X(m), y: Y(left(m, slip)) }));
  return (
    <section aria-label="Short runs" className="mt-5">
      <h3 className="heading">
        Short runs: what the knots leave
        <WhereFrom origin={SLIP} shown="what the knots leave" />
      </h3>
      <p className="max-w-[46rem]">
        {tie.name}s slip <Num value={tie.slip_m} q="height" /> each as they bed. Tied off without a
        tensioner, this run of <Num value={own} q="length" /> would keep{' '}
        <Num value={left(own)} q="force" /> of <Num value={row.at15_N} q="force" />
        {own < short
          ? line.tensioner
            ? ': its tensioners take that up.'
            : `: leave an in-line tensioner in each strand, as in every run under ${say(short, 'length', units)}.`
          : '.'}
      </p>
      <div className="h-[220px] max-w-[46rem]">
        <LineChart
          label={`What slip leaves against the length of the run: at ${say(50, 'length', units)} ${say(left(50), 'force', units)}, at ${say(100, 'length', units)} ${say(left(100), 'force', units)}, at ${say(200, 'length', units)} ${say(left(200), 'force', units)}`}
          curves={(colour) => {
            const common = { borderColor: colour('ink'), backgroundColor: colour('panel'), borderWidth: 1.8 }; // prettier-ignore
            return [
              { ...common, label: `both ties slip ${say(2 * tie.slip_m, 'height', units)}`, data: curve(tie.slip_m), pointRadius: 0, pointStyle: 'line' }, // prettier-ignore
              { ...common, label: 'half of that', data: curve(tie.slip_m / 2), pointRadius: 0, pointStyle: 'line', borderDash: [6, 4] }, // prettier-ignore
              { ...common, label: 'this run', data: [{ x: X(Math.min(own, 500)), y: Y(left(own)) }], showLine: false, pointStyle: 'rectRot', pointRadius: 8, backgroundColor: colour('ink') }, // prettier-ignore
            ];
          }}
          x={{ min: 0, title: `length of the run, ${unitOf('length', units)}` }}
          y={{ min: 0, title: `left of the tension, ${unitOf('force', units)}` }}
          box={18}
        />
      </div>
    </section>
  );
}
