/** What friction leaves along the run: where it is tensioned from, wrapped or in separate runs, and what short runs keep. */
import { useMemo } from 'react';
import { recordOf } from '../../core/plan/catalogue.js';
import type { Line } from '../../core/plan/schema.js';
import { leastOf, meanOf } from '../../core/wire/run.js';
import { woundIn } from '../../core/wire/stringing.js';
import { inRun, strungIn, tensionerIn, tensionerPlace } from '../../core/wire/strung.js';
import { jointsOfLine } from '../../core/wire/wires.js';
import { AlongField } from '../../ui/parts/AlongField.js';
import { Button } from '../../ui/parts/Button.js';
import { Select } from '../../ui/parts/controls.js';
import { DataTable } from '../../ui/parts/DataTable.js';
import { Num } from '../../ui/parts/Num.js';
import { commit } from '../../session/session.js';
import { BothWaysPart } from './BothWaysPart.js';
import { SLIDES, TAKE_UP } from './origins.js';
import { SlipChart } from './SlipChart.js';
import type { Strained } from './strained.js';
import { TensionChart } from './TensionChart.js';

type Place = NonNullable<Line['tensionerAt']>;
const PLACES: readonly (readonly [Place, string])[] = [
  ['start', 'at its start'],
  ['middle', 'in the middle'],
  ['end', 'at its end'],
  ['best', 'at the best place found'],
];

export function AlongTab({ of }: { of: Strained }) {
  return (
    <>
      <TensionChart of={of} />
      <Places of={of} />
      <BothWaysPart of={of} />
      <SlipChart of={of} />
    </>
  );
}

interface PlaceRow {
  readonly place: Place | 'hand';
  readonly name: string;
  readonly at_m: number;
  readonly least: number;
  readonly mean: number;
  readonly wound_m: number;
  readonly turns: number;
  readonly own: boolean;
}

/** Every place for the tensioner, with what it leaves. */
function Places({ of }: { of: Strained }) {
  const { line, report, bayed, wire, cat, row } = of;
  const { run } = bayed;
  const hand = tensionerIn(line, run);
  const rows = useMemo(() => {
    const { tensioners, ...bare } = line;
    const { slip_m } = recordOf(cat.joints, jointsOfLine(line).tie);
    const rowOf = (place: Place | 'hand', name: string): PlaceRow => {
      const asked =
        place === 'hand' ? { ...bare, tensioners: tensioners! } : { ...bare, tensionerAt: place };
      const s = strungIn(asked, bayed, wire, cat);
      return {
        place,
        name,
        at_m: s.at_m,
        least: leastOf(s.tension15_N),
        mean: meanOf(s.shape, s.tension15_N),
        ...woundIn(s, slip_m, cat),
        own: hand ? place === 'hand' : tensionerPlace(line) === place,
      };
    };
    return [
      ...PLACES.map(([place, name]) => rowOf(place, name)),
      ...(hand ? [rowOf('hand', 'where it was placed by hand')] : []),
    ];
  }, [line, bayed, wire, cat, hand]);
  const choose = (place: Place) =>
    commit(`tensioner of ${line.name}`, (d) => {
      d.lines[line.id]!.tensionerAt = place;
    });
  const put = (at_m: number | null) =>
    commit(`tensioner of ${line.name}`, (d) => {
      const l = d.lines[line.id]!;
      const others = (l.tensioners ?? []).filter((t) => !inRun(run, t.at_m));
      const all = [...others, ...(at_m === null ? [] : [{ at_m }])].sort((a, b) => a.at_m - b.at_m);
      if (all.length) l.tensioners = all;
      else delete l.tensioners;
    });
  return (
    <section aria-label="Where it is tensioned" className="mt-4">
      <h3 className="heading">Where it is tensioned from</h3>
      <div className="my-1 flex flex-wrap items-end gap-x-5 gap-y-2">
        <Select
          label="In every run"
          width="max-w-[16rem]"
          value={tensionerPlace(line)}
          options={PLACES}
          onChange={choose}
        />
        <AlongField
          label={hand ? 'By hand, at' : 'Or by hand, at'}
          line={line}
          report={report}
          value={hand?.at_m ?? row.at_m}
          onCommit={(s) => put(Math.min(run.to_m, Math.max(run.from_m, s)))}
        />
        {hand && <Button onClick={() => put(null)}>Take that back</Button>}
      </div>
      <DataTable
        label="Places for the tensioner"
        className="!w-auto"
        rows={rows}
        keyOf={(r) => r.place}
        chosen={(r) => r.own}
        columns={[
          { name: 'tensioned', head: true, cell: (r) => `${r.name}${r.own ? ' (now)' : ''}` },
          { name: 'at', n: true, cell: (r) => <Num value={r.at_m} q="length" /> },
          {
            name: 'slackest bay',
            n: true,
            from: SLIDES,
            cell: (r) => <Num value={r.least} q="force" />,
          },
          { name: 'keeps', n: true, cell: (r) => <Num value={r.least / row.at15_N} q="percent" /> },
          { name: 'mean', n: true, cell: (r) => <Num value={r.mean} q="force" /> },
          {
            name: 'wound in',
            n: true,
            from: TAKE_UP,
            cell: (r) => <Num value={r.wound_m} q="height" />,
          },
          { name: 'turns', n: true, cell: (r) => <Num value={r.turns} q="turns" bare /> },
        ]}
      />
      <p className="label mt-1">
        In the middle it leaves most; at an end it is within reach of the gate. Keep it away from
        where stock rub, and from bends.
      </p>
    </section>
  );
}
