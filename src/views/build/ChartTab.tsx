/** The plan of work at a look: when it stands, what decides that, what would change it; the chart. */
import { useState } from 'react';
import { daysOf } from '../../core/build/loadout.js';
import { PHASES } from '../../core/build/kinds.js';
import type { Planned } from '../../core/build/planned.js';
import { figure } from '../../core/plan/catalogue.js';
import { Asked } from '../../ui/parts/Asked.js';
import { useCatalogue } from '../../session/catalogue.js';
import { useSession } from '../../session/session.js';
import { Button } from '../../ui/parts/Button.js';
import { Choice } from '../../ui/parts/controls.js';
import { useMoney } from '../../ui/parts/money.js';
import { Num, type Origin } from '../../ui/parts/Num.js';
import { CalendarButton } from './CalendarButton.js';
import { Chart, PHASE_NAMES } from './Chart.js';
import { timeName, useBuildTab, useWork, useWorking } from './built.js';
import { TaskCard } from './TaskCard.js';
import { WhatIf } from './WhatIf.js';

type Zoom = 'all' | 'month' | 'fortnight';
const SPAN: Record<Exclude<Zoom, 'all'>, number> = { month: 22, fortnight: 10 };

export function ChartTab() {
  const work = useWork();
  const { value: planned, waiting } = work;
  const task = useBuildTab((t) => t.task);
  const [zoom, setZoom] = useState<Zoom>('all');
  const [from, setFrom] = useState(0);
  if (!planned) return <Asked of={work} doing="Planning the work" />;
  if (planned.fault !== null)
    return (
      <p role="alert" className="border-stop mt-2 max-w-[44em] border-l-4 pl-2">
        There is no plan of the work. {planned.fault}
      </p>
    );
  const days = daysOf(planned.tasks.filter((t) => !t.aside));
  if (days.length === 0)
    return <p className="mt-4">Nothing is left to be done: all of it stands and is proved.</p>;
  const span = zoom === 'all' ? days.length : Math.min(SPAN[zoom], days.length);
  const start = zoom === 'all' ? 0 : Math.min(from, days.length - span);
  const chosen = planned.tasks.find((t) => t.id === task);
  return (
    <div aria-busy={waiting} data-planned={!waiting}>
      <Summary planned={planned} />
      <WhatIf planned={planned} />
      <div className="my-2 flex flex-wrap items-center gap-x-4 gap-y-2">
        <Choice<Zoom>
          label="Days shown"
          value={zoom}
          options={[
            ['all', 'all days'],
            ['month', 'a month'],
            ['fortnight', 'two weeks'],
          ]}
          onChange={setZoom}
        />
        {zoom !== 'all' && (
          <span className="inline-flex gap-1">
            <Button disabled={start === 0} onClick={() => setFrom(Math.max(0, start - span))}>
              ◂ earlier
            </Button>
            <Button disabled={start + span >= days.length} onClick={() => setFrom(start + span)}>
              later ▸
            </Button>
          </span>
        )}
        <Legend />
        <CalendarButton planned={planned} />
      </div>
      <div className={chosen ? 'grid items-start gap-4 @[56rem]:grid-cols-[1fr_19rem]' : ''}>
        {chosen && (
          <div className="@[56rem]:sticky @[56rem]:top-2 @[56rem]:order-2">
            <TaskCard task={chosen} planned={planned} />
            <Button onClick={() => useBuildTab.setState({ task: null })}>Close</Button>
          </div>
        )}
        <Chart planned={planned} days={days.slice(start, start + span)} />
      </div>
      <p className="label mt-2">
        Open a line to see its tasks, press one to change it. A bar is drawn to another day, or
        taken with Space and moved with the arrows.
      </p>
    </div>
  );
}

function Summary({ planned }: { planned: Planned }) {
  const w = useWorking();
  const cat = useCatalogue();
  const currency = useSession((s) => s.plan.currency);
  const money = useMoney();
  const crew = w.crew.length;
  const hours: Origin = {
    kind: 'formula',
    title: 'Hours of one person that are left',
    formula: 'each count of the plan, times what one of it takes, times how fast this crew was so far', // prettier-ignore
    inputs: [{ name: 'Worth of an hour', path: 'defaults.supplies.wage.value', text: `${figure(cat, 'supplies.wage')} ${currency}` }], // prettier-ignore
  };
  const idle = planned.hires.filter((h) => h.idle > 0);
  return (
    <div className="max-w-[62em]" data-summary>
      <p className="text-[1.1rem]">
        With {crew} {crew === 1 ? 'person' : 'people'} the fence stands on{' '}
        <strong data-finish>{timeName(planned.finish!)}</strong>
        {planned.start && <>, begun {timeName(planned.start)}</>}.
      </p>
      <p>
        <Num value={planned.left_h} q="hours" from={hours} /> of work for one person are left. No plan
        with these people ends before {timeName(planned.bound!)}; with any number of people and
        machines it takes until {timeName(planned.unlimited!)}.
      </p>
      {planned.hires.map((h) => (
        <p key={h.item}>
          {h.item === 'hire.driver' ? 'Post driver' : 'Auger'}: hired for {h.days}{' '}
          {h.days === 1 ? 'day' : 'days'}, {money(h.cost)}
          {h.idle > 0 ? ` (${h.idle} idle, ${money(h.idleCost)})` : ', none of them idle'}.
        </p>
      ))}
      {idle.length > 0 && (
        <p className="label">Say when it is hired under “Who and when”, and its work is planned into that time.</p>
      )}
      {planned.warnings.map((words) => (
        <p key={words} className="border-warn my-1 border-l-4 pl-2">
          △ {words}
        </p>
      ))}
    </div>
  );
} // prettier-ignore

function Legend() {
  return (
    <p className="label flex flex-wrap items-center gap-x-3 gap-y-1" aria-label="What the bars are">
      {PHASES.map((p) => (
        <span key={p} className="inline-flex items-center gap-1">
          <span aria-hidden className={`inline-block h-2 w-5 bar-${p}`} /> {PHASE_NAMES[p]}
        </span>
      ))}
      <span className="inline-flex items-center gap-1">
        <span aria-hidden className="bar-ends bar-critical inline-block h-2 w-5" /> critical
      </span>
      <span className="inline-flex items-center gap-1">
        <span aria-hidden className="bar-wait inline-block w-5" /> waits
      </span>
    </p>
  );
}
