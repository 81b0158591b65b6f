import { useState } from 'react';
import { wenner } from '../../core/earth/wenner.js';
import { soilAt } from '../../core/land/things.js';
import { figure, recordOf, type Soil } from '../../core/plan/catalogue.js';
import type { Energiser } from '../../core/plan/schema.js';
import { soilOfReading } from '../../core/power/earthing.js';
import { loadLineOf, plateOfUnit } from '../../core/power/unit.js';
import type { EnergiserReport } from '../../core/report/schema.js';
import { useCatalogue } from '../../session/catalogue.js';
import { commit, useSession } from '../../session/session.js';
import { Button } from '../../ui/parts/Button.js';
import { QuantityField } from '../../ui/parts/controls.js';
import { DataTable } from '../../ui/parts/DataTable.js';
import { Num } from '../../ui/parts/Num.js';
import { keepEarthTest } from './earthReading.js';

/** Takes what was measured as the property's own soil, from what it reckons with now; wet soil keeps its proportion. */
function takeSoil(id: string, now: Soil, factor: number, note: string): void {
  commit(`soil as measured: ${note}`, (d) => {
    for (const state of ['dry_ohm_m', 'damp_ohm_m', 'wet_ohm_m'] as const)
      d.overrides[`soils.${id}.${state}`] = {
        value: Number((now[state] * factor).toPrecision(3)),
        note,
      };
  });
}

/** A reading of the earth test typed in: what it says of the soil, and a record of it. */
export function Reading({ unit, report }: { unit: Energiser; report: EnergiserReport }) {
  const cat = useCatalogue();
  const plan = useSession((s) => s.plan);
  const soil = soilAt(plan, unit);
  const [read, setRead] = useState<number | null>(null);
  const [kept, setKept] = useState(false);
  const found =
    read === null ? null : soilOfReading(unit, recordOf(cat.soils, soil), loadLineOf(plateOfUnit(unit, cat)), read, cat); // prettier-ignore
  return (
    <div className="mt-3">
      <QuantityField
        label="I read, with the fence loaded to 2 kV"
        q="smallVolt"
        min={1}
        max={9000}
        value={read ?? NaN}
        onCommit={(v) => {
          setRead(v);
          setKept(false);
        }}
      />
      {read !== null && !found && (
        <p role="alert">
          No soil gives these rods such a reading: look at rods, unit and load again.
        </p>
      )}
      {read !== null && found && (
        <p data-soil-read>
          Then the rods have <Num value={found.r_ohm} q="ohm" /> and the soil round them{' '}
          <Num value={found.rho_ohm_m} q="resistivity" />;{' '}
          <Num value={report.earth.test.reading_V} q="smallVolt" /> was foretold.{' '}
          <Button
            disabled={kept}
            onClick={() => {
              setKept(true);
              keepEarthTest(unit, read);
            }}
          >
            {kept ? 'kept' : 'Keep the reading'}
          </Button>{' '}
          <Button
            onClick={() =>
              takeSoil(
                soil,
                recordOf(cat.soils, soil),
                found.factor,
                `earth test read ${Math.round(read)} V`,
              )
            }
          >
            Reckon with this soil
          </Button>
        </p>
      )}
    </div>
  );
}

/** Beyond so many times the middle reading, or as little, a reading is doubted. */
const DOUBT = 2;

/** Four-pin readings of the soil; those that stand apart are marked. */
export function Pins({ unit }: { unit: Energiser }) {
  const cat = useCatalogue();
  const plan = useSession((s) => s.plan);
  const soil = soilAt(plan, unit);
  const pins = unit.pins ?? [];
  const rows = pins.map((p) => ({
    ...p,
    rho: wenner({ spacing_m: p.spacing_m, r_measured_ohm: p.r_ohm, probe_depth_m: p.depth_m })
      .rho_finite_depth_ohm_m,
  }));
  const sorted = rows.map((r) => r.rho).sort((a, b) => a - b);
  const middle = sorted[sorted.length >> 1] ?? NaN;
  const odd = (rho: number) => rho > DOUBT * middle || rho < middle / DOUBT;
  const good = rows.filter((r) => !odd(r.rho)).map((r) => r.rho);
  const mean = good.length
    ? Math.exp(good.reduce((s, v) => s + Math.log(v), 0) / good.length)
    : NaN;
  const set = (change: (list: NonNullable<Energiser['pins']>) => void) =>
    commit(`four-pin readings at ${unit.name}`, (d) => {
      const u = d.energisers[unit.id]!;
      u.pins = [...(u.pins ?? [])];
      change(u.pins);
      if (u.pins.length === 0) delete u.pins;
    });
  return (
    <details className="mt-2" open={pins.length > 0}>
      <summary className="cursor-pointer">Four-pin readings of the soil</summary>
      {rows.length > 0 && (
        <DataTable
          label="Four-pin readings"
          rows={rows}
          keyOf={(_, i) => i}
          columns={[
            {
              name: 'pins apart',
              n: true,
              cell: (r, i) => <QuantityField hideLabel label={`Pins apart, reading ${i + 1}`} q="tape" at="energisers/*/pins/*/spacing_m" width="w-16" value={r.spacing_m} onCommit={(v) => set((l) => void (l[i] = { ...l[i]!, spacing_m: v }))} />, // prettier-ignore
            },
            {
              name: 'read',
              n: true,
              cell: (r, i) => <QuantityField hideLabel label={`Reading ${i + 1}`} q="ohm" at="energisers/*/pins/*/r_ohm" width="w-16" value={r.r_ohm} onCommit={(v) => set((l) => void (l[i] = { ...l[i]!, r_ohm: v }))} />, // prettier-ignore
            },
            {
              name: 'soil',
              n: true,
              from: { kind: 'formula', title: 'Four pins in line', formula: '4πaR/(1 + 2a/√(a²+4b²) − a/√(a²+b²))', source: 'Wenner 1915; IEEE Std 81' }, // prettier-ignore
              cell: (r) => (
                <>
                  <Num value={r.rho} q="resistivity" className={odd(r.rho) ? 'text-stop' : ''} />
                  {odd(r.rho) && <span className="label text-stop"> stands apart</span>}
                </>
              ),
            },
            {
              name: 'take away',
              quiet: true,
              cell: (_, i) => (
                <Button
                  className="small"
                  aria-label={`Take reading ${i + 1} away`}
                  onClick={() => set((l) => void l.splice(i, 1))}
                >
                  ×
                </Button>
              ),
            },
          ]}
        />
      )}
      <span className="mt-1 flex flex-wrap items-center gap-2">
        <Button onClick={() => set((l) => void l.push({ spacing_m: 2, r_ohm: 8, depth_m: 0.2 }))}>
          Add a reading
        </Button>
        {good.length > 0 && (
          <Button
            onClick={
              () =>
              takeSoil(soil, recordOf(cat.soils, soil), mean / recordOf(cat.soils, soil).damp_ohm_m, `${good.length} four-pin readings`) // prettier-ignore
            }
          >
            Take <Num value={mean} q="resistivity" /> as the damp soil
          </Button>
        )}
      </span>
      <p className="label">
        Pins {figure(cat, 'earth.dryDepth') > 0 ? 'pushed in equally deep, ' : ''}in one line,
        equally spaced; push in on an ordinary moist day.
      </p>
    </details>
  );
}
