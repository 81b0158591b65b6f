/** How fast this crew is, beside what the trade says; days that are far off are asked about; what was done. */
import { kindOf, type TaskKind } from '../../core/build/kinds.js';
import type { Rate } from '../../core/build/rates.js';
import { figure } from '../../core/plan/catalogue.js';
import { useCatalogue } from '../../session/catalogue.js';
import { happened, takeBack } from '../../session/records.js';
import { useSession } from '../../session/session.js';
import { Button } from '../../ui/parts/Button.js';
import { Part } from '../../ui/parts/controls.js';
import { DataTable } from '../../ui/parts/DataTable.js';
import { Num, WhereFrom, type Origin } from '../../ui/parts/Num.js';
import { dayName, fullName, useHappened, useWork, type WorkRecord } from './built.js';

export function RatesTab() {
  const { value: planned } = useWork();
  const { did, known } = useHappened();
  const lines = useSession((s) => s.plan.lines);
  const cat = useCatalogue();
  if (!planned || !known) return <p role="status">One moment …</p>;
  const rates = Object.entries(planned.rates) as [TaskKind, Rate][];
  const odd = new Set(rates.flatMap(([, r]) => r.odd));
  const name = (d: WorkRecord) => {
    const task = planned.tasks.find((t) => t.id === d.task);
    return task ? fullName(task, lines) : kindOf(d.kind as TaskKind).name;
  };
  const origin: Origin = {
    kind: 'formula',
    title: 'How long this crew takes',
    formula: '(hours taken + prior) / (hours the trade says + prior), over the days that count',
    inputs: [
      { name: 'Prior', path: 'defaults.build.priorHours.value', quantity: 'hours' },
      { name: 'Asked about beyond', path: 'defaults.build.oddRatio.value' },
    ],
  };
  return (
    <div className="max-w-[60em]">
      <Part title="Rates">
        {rates.length === 0 ? (
          <p>
            Nothing was marked as done yet. Each day done says how fast this crew is; the plan of what is left follows.
          </p>
        ) : (
          <DataTable<[TaskKind, Rate]>
            label="Rates of this crew"
            rows={rates}
            keyOf={([kind]) => kind}
            columns={[
              { name: 'work', head: 'plain', cell: ([kind]) => kindOf(kind).name },
              { name: 'days that count', n: true, cell: ([, r]) => r.days },
              {
                name: 'hours of the trade, times',
                n: true,
                cell: ([, r]) => <>{r.times.toFixed(2)} <WhereFrom origin={origin} shown={r.times.toFixed(2)} /></>,
              },
              { name: 'spread', n: true, cell: ([, r]) => (r.days > 1 ? `± ${r.spread.toFixed(2)}` : r.days === 1 ? 'one day only' : 'none counts yet') },
              { name: 'so it goes', cell: ([, r]) => (r.times > 1.05 ? 'slower than the trade says' : r.times < 0.95 ? 'faster than the trade says' : 'as the trade says') },
            ]}
          />
        )}
      </Part>
      {did.length > 0 && (
        <Part title="Days done">
          <DataTable<WorkRecord>
            label="Days done"
            rows={did.toReversed()}
            keyOf={(d) => d.id}
            columns={[
              { name: 'day', by: (d) => d.day, cell: (d) => dayName(d.day) },
              { name: 'task', head: 'plain', by: name, cell: name },
              { name: 'part', n: true, cell: (d) => `${Math.round(d.share * 100)} %` },
              { name: 'took', n: true, by: (d) => d.hours, cell: (d) => <Num value={d.hours} q="hours" /> },
              { name: 'the trade says', n: true, cell: (d) => <Num value={d.planned_h} q="hours" /> },
              {
                name: 'for the rate',
                cell: (d) =>
                  odd.has(d.id) ? (
                    <span className="inline-flex flex-wrap items-center gap-2">
                      △ {(d.hours / d.planned_h).toFixed(1)} times what is said: does it count?
                      <Button className="small" onClick={() => answer(d, true)}>
                        it counts
                      </Button>
                      <Button className="small" onClick={() => answer(d, false)}>
                        leave it out
                      </Button>
                    </span>
                  ) : d.counts === false ? (
                    'left out'
                  ) : (
                    'counts'
                  ),
              },
              {
                name: 'take back',
                quiet: true,
                cell: (d) => (
                  <Button className="small" onClick={() => takeBack('work', d)}>
                    take back
                  </Button>
                ),
              },
            ]}
          />
        </Part>
      )}
      <Part title="Several strands at once">
        <p>
          From a frame of jennies <Num value={figure(cat, 'build.strandsAtOnce')} q="count" from={{ kind: 'default', title: 'Strands unrolled in one walk', inputs: [{ name: 'Strands at once', path: 'defaults.build.strandsAtOnce.value', quantity: 'count' }] }} />{' '}
          {figure(cat, 'build.strandsAtOnce') === 1 ? 'strand is' : 'strands are'} unrolled in one walk.
        </p>
      </Part>
    </div>
  );
} // prettier-ignore

/** Whether an odd day counts: a record that puts the day's right. */
function answer({ task, kind, day, hours, share, planned_h, id, note }: WorkRecord, counts: boolean): void {
  happened('work', { task, kind, day, hours, share, planned_h, note, counts, corrects: id });
} // prettier-ignore
