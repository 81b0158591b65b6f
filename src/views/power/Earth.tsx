import { DataTable } from '../../ui/parts/DataTable.js';
import type { ReactNode } from 'react';
import { figureText, say } from '../../core/base/units.js';
import type { Energiser } from '../../core/plan/schema.js';
import type { EnergiserReport } from '../../core/report/schema.js';
import { Check, Part, QuantityField } from '../../ui/parts/controls.js';
import { Num, useUnits, type Origin } from '../../ui/parts/Num.js';
import { useCatalogue } from '../../session/catalogue.js';
import { commit, useSession } from '../../session/session.js';
import { Button } from '../../ui/parts/Button.js';
import { EarthTable, Rods } from './EarthTable.js';
import { Pins, Reading } from './Soil.js';

/** Rods, their resistance by season, and the earth test that they would give. */
export function Earth({ unit, report }: { unit: Energiser; report: EnergiserReport }) {
  const units = useUnits();
  const cat = useCatalogue();
  const soil = useSession((s) => s.plan.soil);
  const limit = cat.defaults['earth.testLimit']!.value;
  const e = report.earth;
  const set = (words: string, change: (u: Energiser) => void) =>
    commit(`${words} of ${unit.name}`, (d) => change(d.energisers[unit.id]!));
  const rods: Origin = {
    kind: 'formula',
    title: 'Rods that share one soil',
    formula: `R1 = ρ/(2πL)·(ln(4L/a) − 1) = ${figureText(e.single_dry_ohm, 'ohm', 'metric')} ohm; ${e.rods} rods: R1/${e.rods} × ${e.factor.toFixed(2)}`,
    source:
      'Single rod: AIEE Trans. 55, 1936. Group: mutual resistance of every pair. The driest month dries the top of the soil alone; docs/model.md, Earth',
    inputs: [
      { name: 'Soil, driest month', path: `soils.${soil}.dry_ohm_m`, quantity: 'resistivity' },
      { name: 'Soil, damp', path: `soils.${soil}.damp_ohm_m`, quantity: 'resistivity' },
      {
        name: 'Dried in the driest month to',
        path: 'defaults.earth.dryDepth.value',
        quantity: 'tape',
      },
      { name: 'Soil, wet', path: `soils.${soil}.wet_ohm_m`, quantity: 'resistivity' },
    ],
  };
  const test: Origin = {
    kind: 'formula',
    title: 'The rods against far soil, in the driest month',
    formula: `I·R = ${figureText(e.test.current_A, 'ampere', 'metric')} A × ${figureText(e.r_dry_ohm, 'ohm', 'metric')} ohm`,
    source:
      'Current from the load line with the fence loaded; the probe also stands in raised soil, so it reads less',
    inputs: [
      { name: 'Fence loaded down to', path: 'defaults.earth.testFence.value', quantity: 'volt' },
      { name: 'Load laid at', path: 'defaults.earth.testDistance.value', quantity: 'length' },
      {
        name: 'Probe from the last rod',
        path: 'defaults.earth.testProbe.value',
        quantity: 'length',
      },
    ],
  };
  const probe: Origin = {
    kind: 'formula',
    title: 'The earth test, foretold for the driest month',
    formula: 'I·R − Σ ρ I/(2πL) asinh(L/d)',
    source: 'The soil at the probe is raised too, by every rod; docs/model.md, Earth',
    inputs: [
      {
        name: 'Probe from the last rod',
        path: 'defaults.earth.testProbe.value',
        quantity: 'length',
      },
      {
        name: 'Most that is allowed, of this reading',
        path: 'defaults.earth.testLimit.value',
        quantity: 'smallVolt',
      },
    ],
  };
  return (
    <Part title="Earth">
      <div className="flex flex-wrap gap-x-5 gap-y-1">
        <QuantityField
          label="Rods"
          q="count"
          at="energisers/*/rods"
          value={unit.rods}
          width="w-14"
          onCommit={(n) => set('rods', (u) => void (u.rods = n))}
        />
        <QuantityField
          label="Length"
          q="tape"
          at="energisers/*/rodLength_m"
          value={unit.rodLength_m}
          width="w-16"
          onCommit={(m) => set('rod length', (u) => void (u.rodLength_m = m))}
        />
        <QuantityField
          label="Apart"
          q="tape"
          at="energisers/*/rodSpacing_m"
          value={unit.rodSpacing_m}
          width="w-16"
          onCommit={(m) => set('rod spacing', (u) => void (u.rodSpacing_m = m))}
        />
        <QuantityField
          label="Thick"
          q="height"
          at="energisers/*/rodDiameter_m"
          value={unit.rodDiameter_m}
          width="w-16"
          onCommit={(m) => set('rod diameter', (u) => void (u.rodDiameter_m = m))}
        />
      </div>
      <p className="mt-2">
        {e.rodsNeeded === null ? (
          <>
            <strong>No number of such rods</strong> in line keeps the test under{' '}
            {say(limit, 'smallVolt', units)} in the driest month: look for damper ground or drive
            longer rods.
          </>
        ) : (
          <>
            <strong>{e.rodsNeeded} rods</strong> like these in line keep the earth test under{' '}
            {say(limit, 'smallVolt', units)} in the driest month.{' '}
            {e.rodsNeeded !== e.rods && (
              <Button onClick={() => set('rods', (u) => void (u.rods = e.rodsNeeded!))}>
                Set {e.rodsNeeded}
              </Button>
            )}
          </>
        )}
      </p>
      <DataTable
        label="Figures of the earth"
        className="mt-2"
        keyOf={(_, i) => i}
        columns={[
          { name: 'what', quiet: true, cell: (r) => r.what },
          {
            name: 'figure',
            quiet: true,
            n: true,
            className: 'whitespace-nowrap',
            cell: (r) => r.figure,
            attributes: (r) => ({ 'data-earth-reading': r.reading }),
          },
        ]}
        rows={rowsOf({ e, limit, rods, test, probe })}
      />
      <p className="label mt-1">
        The trade’s rule beside it: about a metre of rod for a joule of output, here{' '}
        <Num value={report.output_J} q="tape" /> or more; there are{' '}
        <Num value={unit.rods * unit.rodLength_m} q="tape" />. At least three.
      </p>
      <Rods unit={unit} />
      <EarthTable unit={unit} />
      <Reading unit={unit} report={report} />
      <Pins unit={unit} />
      <Diverter unit={unit} />
      <OtherWays />
    </Part>
  );
}

/** Ways out when rods in this ground do not do it. */
function OtherWays() {
  return (
    <details className="mt-2">
      <summary className="cursor-pointer">Other ways out</summary>
      <ul className="list-disc pl-5">
        <li>damper ground: a hollow, the foot of a slope, beside a burn, with a longer lead</li>
        <li>longer rods, down to where it stays damp: the driest month dries the top alone</li>
        <li>an earth strand along the fence, bonded to a rod every so often (Strands, by turns)</li>
        <li>less load: growth cut, so that less current has to come back</li>
      </ul>
      <p className="label">
        One continuous lead of the fence’s own wire from rod to rod, above the grass where it can be
        seen; two turns or two contact points under each clamp.
      </p>
    </details>
  );
}

/** What leads lightning off before it reaches the unit. */
function Diverter({ unit }: { unit: Energiser }) {
  return (
    <div className="mt-3">
      <Check
        label="Lightning diverter in the lead-out, with rods of its own"
        checked={unit.diverter !== undefined}
        onChange={(on) =>
          commit(`lightning diverter of ${unit.name}`, (d) => {
            const u = d.energisers[unit.id]!;
            if (on) u.diverter = { rods: u.rods + 1 };
            else delete u.diverter;
          })
        }
      />{' '}
      {unit.diverter && (
        <QuantityField
          label="Its rods"
          q="count"
          at="energisers/*/diverter/rods"
          value={unit.diverter.rods}
          width="w-14"
          onCommit={(n) =>
            commit(`rods of the diverter of ${unit.name}`, (d) => {
              d.energisers[unit.id]!.diverter = { rods: n };
            })
          }
        />
      )}
      <p className="label">
        One rod more than the unit’s, ten metres or more from its rods, with a choke in the lead.
        Pull the plug in a storm where that is safe. No diverter stops a direct stroke.
      </p>
    </div>
  );
}

/** Resistance by season, and the earth test. */
function rowsOf({
  e,
  limit,
  rods,
  test,
  probe,
}: {
  e: EnergiserReport['earth'];
  limit: number;
  rods: Origin;
  test: Origin;
  probe: Origin;
}): { what: ReactNode; figure: ReactNode; reading?: true }[] {
  const over = e.test.reading_V > limit;
  return [
    {
      what: 'Resistance: driest, damp, wet',
      figure: (
        <>
          <Num value={e.r_dry_ohm} q="ohm" bare />, <Num value={e.r_damp_ohm} q="ohm" bare />,{' '}
          <Num value={e.r_wet_ohm} q="ohm" from={rods} />
        </>
      ),
    },
    {
      what: (
        <>
          Earth test, read at a probe beside the last rod{' '}
          <span className="label">
            at most <Num value={limit} q="smallVolt" />
          </span>
        </>
      ),
      reading: true,
      figure: (
        <>
          <Num
            value={e.test.reading_V}
            q="smallVolt"
            from={probe}
            className={over ? 'text-stop font-semibold' : ''}
          />
          {over && <span className="label text-stop"> over</span>}
        </>
      ),
    },
    {
      what: 'the rods against far soil, which is more',
      figure: <Num value={e.test.rise_V} q="smallVolt" from={test} />,
    },
    {
      what: 'current that returns in the test',
      figure: <Num value={e.test.current_A} q="ampere" from={test} />,
    },
  ];
}
