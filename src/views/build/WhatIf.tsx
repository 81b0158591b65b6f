/** What if it rains on a day, or if one more comes: the plan made anew, and by how much it ends later or earlier. */
import { useState } from 'react';
import { toggled, changeBuild } from '../../core/build/edits.js';
import { daysOf } from '../../core/build/loadout.js';
import { daysBetween } from '../../core/base/days.js';
import type { Planned } from '../../core/build/planned.js';
import { Asked } from '../../ui/parts/Asked.js';
import { commit } from '../../session/session.js';
import { Button } from '../../ui/parts/Button.js';
import { Select } from '../../ui/parts/controls.js';
import { useMoney } from '../../ui/parts/money.js';
import { dayName, timeName, useBuildTab, useWork } from './built.js';

export function WhatIf({ planned }: { planned: Planned }) {
  const days = daysOf(planned.tasks.filter((t) => !t.aside)).slice(0, 15);
  const [day, setDay] = useState('');
  const rain = days.includes(day) ? day : '';
  const [more, setMore] = useState(false);
  return (
    <section aria-label="What if" className="my-2 flex flex-wrap items-center gap-x-3 gap-y-1">
      <span className="label">What if</span>
      <Select
        label="it rains on"
        value={rain}
        width="max-w-[9rem]"
        options={[['', 'no day'], ...days.map((d) => [d, dayName(d)] as const)]}
        onChange={setDay}
      />
      <Button aria-pressed={more} onClick={() => setMore(!more)}>
        one more comes
      </Button>
      {(rain || more) && (
        <Answer
          planned={planned}
          what={{ ...(rain ? { rain } : {}), ...(more ? { more: 1 } : {}) }}
        />
      )}
      {rain && (
        <Button
          onClick={() => {
            commit(`no work on ${dayName(rain)}: weather`, (d) => changeBuild(d, { rain: toggled(d.build?.rain, rain) })); // prettier-ignore
            setDay('');
          }}
        >
          It rained: plan without that day
        </Button>
      )}
      {more && (
        <Button onClick={() => useBuildTab.setState({ tab: 'who' })}>Put somebody in …</Button>
      )}
    </section>
  );
}

function Answer({ planned, what }: { planned: Planned; what: { rain?: string; more?: number } }) {
  const work = useWork(what);
  const { value: then, waiting } = work;
  const money = useMoney();
  if (!then || waiting) return <Asked of={{ ...work, value: null }} doing="Planning" />;
  if (then.fault !== null || !then.finish || !planned.finish) return <p role="status">{then.fault}</p>;
  const by = daysBetween(planned.finish.slice(0, 10), then.finish.slice(0, 10));
  const hire = (p: Planned) => p.hires.reduce((sum, h) => sum + h.cost, 0);
  const dearer = hire(then) - hire(planned);
  const later = by === 0 ? 'on the same day' : `${Math.abs(by)} ${Math.abs(by) === 1 ? 'day' : 'days'} ${by > 0 ? 'later' : 'earlier'}`; // prettier-ignore
  return (
    <p role="status" data-what-if>
      Then it stands on <strong>{timeName(then.finish)}</strong>, {later}
      {Math.abs(dearer) < 0.5 ? '; hire costs the same' : `; hire costs ${money(Math.abs(dearer))} ${dearer > 0 ? 'more' : 'less'}`}.
    </p>
  );
} // prettier-ignore
