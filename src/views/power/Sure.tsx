import { useEffect, useRef, useState } from 'react';
import { say } from '../../core/base/units.js';
import type { Energiser } from '../../core/plan/schema.js';
import type { SeasonId } from '../../core/plan/catalogue.js';
import type { Sure as Answer, Weak } from '../../core/sizing/sure.js';
import type { EnergiserReport } from '../../core/report/schema.js';
import { askPower } from '../../session/power.js';
import { useCatalogue } from '../../session/catalogue.js';
import { useSession } from '../../session/session.js';
import { look, useView } from '../../session/view.js';
import { Button } from '../../ui/parts/Button.js';
import { LoadLineChart } from './LoadLineChart.js';
import { DataTable } from '../../ui/parts/DataTable.js';
import { Num, useUnits, type Origin } from '../../ui/parts/Num.js';

const MANY = 300;
const SEED = 1;
const WORDS: Record<Weak, readonly [what: string, reading: string]> = {
  leakage: ['what grows and leaks', 'a voltmeter at the far end in that season: a minute’s walk'],
  soil: ['the soil at the rods', 'four pins, or the earth test itself'],
  inductance: ['how the soil carries the pulse', 'a voltmeter at two places of one long line'],
  resistance: ['resistance of wire and soil', 'a voltmeter at two places of one long line'],
  plate: ['the joules of the plate', 'the plate of the very unit; its maker says'],
  rise: ['how fast the unit rises', 'the volts at the near and the far end of a short clean fence'],
};

/** How sure the worst volts are: hundreds of properties as this one may be, by lot. */
export function Sure({ unit, report }: { unit: Energiser; report: EnergiserReport }) {
  const cat = useCatalogue();
  const units = useUnits();
  const plan = useSession((s) => s.plan);
  const line = useView((v) => v.line);
  const limit = cat.defaults['earth.testLimit']!.value;
  const [answer, setAnswer] = useState<Answer | null>(null);
  const [running, setRunning] = useState(false);
  const [of, setOf] = useState<unknown>(null);
  const stop = useRef(false);
  useEffect(() => () => void (stop.current = true), []);
  useEffect(() => {
    look({
      beside: answer?.along
        ? {
            words: 'eight in ten lie within the band',
            lines: { [answer.along.line]: { ...answer.along } },
          }
        : null,
    });
  }, [answer]);
  useEffect(() => () => look({ beside: null }), []);
  const run = async () => {
    stop.current = false;
    setRunning(true);
    setOf(plan);
    setAnswer(null);
    for (let n = 0; n < MANY && !stop.current;) {
      const next = await askPower((api) => api.sure(unit.id, line, report.smallest, SEED));
      if (!next || stop.current) break;
      n = next.samples;
      setAnswer(next);
    }
    setRunning(false);
  };
  const stale = answer !== null && of !== plan;
  return (
    <>
      <p>
        Leakage, soil, line constants and plate are known badly. {MANY} properties as this one may
        be are drawn by lot, always the same ones, and each is worked out.
      </p>
      <span className="mt-2 flex items-center gap-3">
        {running ? (
          <Button onClick={() => (stop.current = true)}>Stop</Button>
        ) : (
          <Button onClick={() => void run()}>{answer ? 'Draw again' : 'Draw by lot'}</Button>
        )}
        {(running || answer) && (
          <progress
            className="accent-earth"
            max={MANY}
            value={answer?.samples ?? 0}
            aria-label={`${answer?.samples ?? 0} of ${MANY} drawn`}
          />
        )}
        {answer && <span className="label">{answer.samples} drawn</span>}
      </span>
      {answer && (
        <div className={stale ? 'opacity-60' : ''}>
          {stale && <p role="status">Of the plan as it was: draw again.</p>}
          <p className="mt-3 text-[1.071rem]" data-sure>
            Keeps its aim in <strong>{answer.holds} of 100</strong> such{' '}
            {cat.seasons[answer.season as SeasonId]!.name.toLowerCase()} seasons. Worst point{' '}
            <Num value={answer.worst_V[0]} q="volt" bare /> to{' '}
            <Num value={answer.worst_V[2]} q="volt" from={LOT} />, in the middle{' '}
            <Num value={answer.worst_V[1]} q="volt" />. Earth test{' '}
            <Num value={answer.reading_V[0]} q="smallVolt" bare /> to{' '}
            <Num value={answer.reading_V[2]} q="smallVolt" />, at most{' '}
            {say(limit, 'smallVolt', units)}.
          </p>
          {answer.other && (
            <p>
              With <strong>{cat.energisers[answer.other.model]!.name}</strong>, the{' '}
              {answer.other.model === report.smallest ? 'one to take' : 'strongest allowed'}:{' '}
              <strong>{answer.other.holds} of 100</strong>.
            </p>
          )}
          <p className="label">One in ten lies below, one in ten above.</p>
          <DataTable
            label="What makes it unsure"
            rows={answer.from.filter((f) => f.share > 0.02)}
            keyOf={(f) => f.weak}
            columns={[
              { name: 'unsure because of', head: true, cell: (f) => WORDS[f.weak][0] },
              {
                name: 'share',
                n: true,
                from: { ...LOT, inputs: [{ name: 'Its spread', path: `defaults.sure.${answer.from[0]!.weak}.value` }] }, // prettier-ignore
                cell: (f) => <Num value={f.share} q="percent" />,
              },
              {
                name: 'a cheap reading',
                cell: (f) => <span className="label">{WORDS[f.weak][1]}</span>,
              },
            ]}
          />
          <LoadLineChart
            unit={unit}
            report={report}
            band={[answer.worst_V[0], answer.worst_V[2]]}
          />
          <p>
            The cheapest help: <strong>{WORDS[answer.from[0]!.weak][1]}</strong>.
          </p>
        </div>
      )}
    </>
  );
}

const LOT: Origin = {
  kind: 'formula',
  title: 'Drawn by lot',
  formula: 'each weak input times exp(z·spread), z standard normal; eight in ten of the answers',
  source: 'docs/model.md, How sure',
};
