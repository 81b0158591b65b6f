import { useEffect, useState } from 'react';
import { figure } from '../../core/plan/catalogue.js';
import type { Energiser } from '../../core/plan/schema.js';
import { plateOfUnit } from '../../core/power/unit.js';
import {
  leadLoss,
  monthsOf,
  supplyYear,
  usualSupply,
  type Supply as Of,
} from '../../core/sizing/supply.js';
import { useCatalogue } from '../../session/catalogue.js';
import { commit, useSession } from '../../session/session.js';
import { Button } from '../../ui/parts/Button.js';
import { QuantityField } from '../../ui/parts/controls.js';
import { DataTable } from '../../ui/parts/DataTable.js';
import { Num, type Origin } from '../../ui/parts/Num.js';

const MONTHS = ['Jan', 'Feb', 'Mar', 'Apr', 'May', 'Jun', 'Jul', 'Aug', 'Sep', 'Oct', 'Nov', 'Dec'];

const DRAW: Origin = {
  kind: 'formula',
  title: 'Mean draw',
  formula: 'stored J × pulses a second ÷ efficiency + standby',
  source: 'docs/model.md, Supply',
  inputs: [
    { name: 'Efficiency', path: 'defaults.supply.efficiency.value' },
    { name: 'Standby, W', path: 'defaults.supply.standby.value' },
  ],
};
const NEEDED: Origin = {
  kind: 'formula',
  title: 'What is needed',
  formula:
    'battery: a day × days of cloud ÷ (volts × usable); panel: a day ÷ (sun of the darkest month × share)',
  source: 'docs/model.md, Supply',
  inputs: [{ name: 'Of the panel’s watts', path: 'defaults.supply.panelShare.value' }],
};

/** What a battery or solar unit runs on, over a year with spells of cloud. */
export function Supply({ unit }: { unit: Energiser }) {
  const cat = useCatalogue();
  const latitude = useLatitude();
  const [seed, setSeed] = useState(1);
  const plate = plateOfUnit(unit, cat);
  if (plate.supply === 'mains')
    return (
      <p>
        This unit runs on the mains: a dry building, its own socket, work by a licensed electrician.
        Choose a battery or solar unit under Unit to size its supply.
      </p>
    );
  const supply = unit.supply ?? usualSupply(cat);
  const set = (words: string, change: (s: Of) => void) =>
    commit(`${words} of ${unit.name}`, (d) => {
      const u = d.energisers[unit.id]!;
      u.supply = { ...supply, sun_h: [...months] };
      change(u.supply);
    });
  const year = supplyYear(unit, supply, latitude, seed, cat);
  const months = monthsOf(supply, latitude, cat);
  const at = 'energisers/*/supply';
  const days = figure(cat, 'supply.firstCharge');
  return (
    <>
      {!unit.supply && (
        <p className="label">
          Taken as usual until you say what is there.{' '}
          <Button className="small" onClick={() => set('supply', () => undefined)}>
            Put it in the plan
          </Button>
        </p>
      )}
      <div className="mt-1 flex flex-wrap gap-x-4 gap-y-1.5">
        <QuantityField
          label="Battery"
          q="battery"
          at={`${at}/battery_Ah`}
          width="w-16"
          value={supply.battery_Ah}
          onCommit={(v) => set('battery', (s) => void (s.battery_Ah = v))}
        />
        <QuantityField
          label="at"
          q="smallVolt"
          at={`${at}/battery_V`}
          width="w-14"
          value={supply.battery_V}
          onCommit={(v) => set('battery', (s) => void (s.battery_V = v))}
        />
        <QuantityField
          label="usable"
          q="percent"
          at={`${at}/usable`}
          width="w-14"
          value={supply.usable}
          onCommit={(v) => set('battery', (s) => void (s.usable = v))}
        />
        <QuantityField
          label="Panel"
          q="watt"
          at={`${at}/panel_W`}
          width="w-16"
          value={supply.panel_W}
          onCommit={(v) => set('panel', (s) => void (s.panel_W = v))}
        />
        <QuantityField
          label="Days of cloud"
          q="count"
          at={`${at}/cloud_days`}
          width="w-14"
          value={supply.cloud_days}
          onCommit={(v) => set('days of cloud', (s) => void (s.cloud_days = v))}
        />
      </div>
      <p className="mt-2" data-supply>
        It draws <Num value={year.mean_W} q="watt" from={DRAW} />. Needed: a battery of{' '}
        <strong>
          <Num value={year.battery_needed_Ah} q="battery" />
        </strong>{' '}
        and a panel of{' '}
        <strong>
          <Num value={year.panel_needed_W} q="watt" from={NEEDED} />
        </strong>
        .{' '}
        {year.flat_days > 0 ? (
          <strong className="text-stop">Flat on {year.flat_days} days of this year.</strong>
        ) : (
          <>
            Lowest charge of the year <Num value={year.lowest_share} q="percent" />.
          </>
        )}
      </p>
      <Year share={year.charge_share} />
      <Button className="mt-1" onClick={() => setSeed(seed + 1)}>
        Another year of cloud
      </Button>
      <DataTable
        label="Hours of full sun a day by month"
        rows={months.map((h, i) => ({ month: MONTHS[i]!, h, i }))}
        keyOf={(m) => m.month}
        className="mt-2"
        columns={[
          { name: 'month', head: true, cell: (m) => m.month },
          {
            name: 'full sun',
            n: true,
            cell: (m) => (
              <QuantityField
                hideLabel
                label={`Full sun in ${m.month}`}
                q="hours"
                at={`${at}/sun_h/*`}
                width="w-16"
                value={m.h}
                onCommit={(v) =>
                  set('sun', (s) => void (s.sun_h = months.map((h, i) => (i === m.i ? v : h))))
                }
              />
            ),
          },
          {
            name: 'gives a day',
            n: true,
            cell: (m) => (
              <Num value={supply.panel_W * m.h * figure(cat, 'supply.panelShare')} q="wattHour" />
            ),
          },
        ]}
      />
      <p className="label">
        {supply.sun_h ? (
          <>
            As typed.{' '}
            <Button
              className="small"
              onClick={() =>
                set('sun', (s) => void (s.sun_h = monthsOf({ ...usualSupply(cat) }, latitude, cat)))
              }
            >
              By latitude again
            </Button>
          </>
        ) : (
          `An invented sky for latitude ${(latitude ?? 50).toFixed(0)}°: take the figures of your place where you have them.`
        )}{' '}
        Before its first duty a new solar unit stands {days} days in the sun, switched off.
      </p>
      <Leads supply={supply} />
    </>
  );
}

const LOSS: Origin = {
  kind: 'formula',
  title: 'Lost in the leads, in full sun',
  formula: '2·L·0.0175·I/(A·V), I = panel watts ÷ battery volts',
  source: 'Copper at 20 degrees; common tables',
};

/** What the leads between panel and battery lose. */
function Leads({ supply }: { supply: Of }) {
  const [length, setLength] = useState(5);
  const [section, setSection] = useState(2.5e-6);
  const loss = leadLoss(supply, length, section * 1e6);
  return (
    <p className="mt-2 flex flex-wrap items-center gap-2">
      <QuantityField
        label="Leads to the panel"
        q="tape"
        min={0.1}
        max={200}
        width="w-16"
        value={length}
        onCommit={setLength}
      />
      <QuantityField
        label="of"
        q="section"
        min={0.2e-6}
        max={100e-6}
        width="w-16"
        value={section}
        onCommit={setSection}
      />
      <span>
        lose <Num value={loss} q="percent" from={LOSS} />
        {loss > 0.03 && <span className="label text-stop"> too much: shorter or stouter</span>}
      </span>
    </p>
  );
}

/** Latitude of the property, degrees; null until it is known. */
function useLatitude(): number | null {
  const origin = useSession((s) => s.plan.origin);
  const [latitude, setLatitude] = useState<number | null>(null);
  useEffect(() => {
    let here = true;
    void import('../../formats/projection.js')
      .then((m) => here && setLatitude(m.converter(origin).toLonLat({ e: 0, n: 0 })[1]))
      .catch(() => undefined);
    return () => void (here = false);
  }, [origin]);
  return latitude;
}

/** Charge day by day. */
function Year({ share }: { share: readonly number[] }) {
  const [w, h] = [400, 80];
  const x = (d: number) => (w * d) / 365;
  const y = (v: number) => h - 14 - (h - 20) * v;
  return (
    <svg
      viewBox={`0 0 ${w} ${h}`}
      className="mt-1 max-w-[520px]"
      role="img"
      aria-label={`Charge over a year, lowest ${Math.round(100 * Math.min(...share))} percent of what is usable`}
    >
      <rect x={0} y={y(1)} width={w} height={y(0) - y(1)} fill="none" stroke="var(--rule)" />
      <path
        d={`M0,${y(0)}L${share.map((v, d) => `${x(d).toFixed(1)},${y(v).toFixed(1)}`).join('L')}L${w},${y(0)}Z`}
        fill="var(--earth)"
        opacity={0.25}
      />
      <path
        d={`M${share.map((v, d) => `${x(d).toFixed(1)},${y(v).toFixed(1)}`).join('L')}`}
        fill="none"
        stroke="var(--earth)"
        strokeWidth={1.4}
      />
      {MONTHS.map((m, i) => (
        <text key={m} x={x(i * 30.4 + 3)} y={h - 3} className="fill-soft text-[0.679rem]">
          {m}
        </text>
      ))}
    </svg>
  );
}
