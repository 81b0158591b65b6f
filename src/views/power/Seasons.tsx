import { DataTable } from '../../ui/parts/DataTable.js';
import { figureText } from '../../core/base/units.js';
import { SEASONS, type SeasonId } from '../../core/plan/catalogue.js';
import type { Energiser } from '../../core/plan/schema.js';
import type { EnergiserReport, SeasonPower } from '../../core/report/schema.js';
import { Part } from '../../ui/parts/controls.js';
import { Num, type Origin } from '../../ui/parts/Num.js';
import { useCatalogue } from '../../session/catalogue.js';
import { useSession } from '../../session/session.js';
import { look, useView } from '../../session/view.js';

const AIM: Origin = {
  kind: 'default',
  title: 'Aim at the worst point',
  source:
    'The strictest of the stock at that line; each is shown on Strands, and can be changed there',
};
const AT_UNIT: Origin = {
  kind: 'formula',
  title: 'Volts at the unit',
  formula: 'V = min(f(R), f(Z0)); f the load line, Z0 the surge impedance where the fence is long',
  source: 'docs/model.md, Power',
  inputs: [
    { name: 'The front counts beyond, µs', path: 'defaults.network.surgeTime.value' },
    { name: 'Inductance that soil adds', path: 'defaults.network.surgeSoil.value' },
  ],
};
const LOAD: Origin = {
  kind: 'formula',
  title: 'What the unit sees',
  formula: 'one solve of the network with 1 A, earth included',
  source: 'docs/model.md, Power',
};

const short = ({ worst }: SeasonPower): boolean => worst !== null && worst.v_V < worst.aim_V;

/** Worst live point by season, with where it is; the chosen season stands out. */
export function Seasons({ unit, report }: { unit: Energiser; report: EnergiserReport }) {
  const cat = useCatalogue();
  const chosen = useView((v) => v.season);
  const lines = useSession((s) => s.plan.lines);
  return (
    <Part title={`${unit.name}: volts at the worst point`}>
      <DataTable
        label="Volts by season"
        rows={SEASONS.map((season) => ({ season, ...report.seasons[season]! }))}
        keyOf={(s) => s.season}
        rowProps={(s) => ({ className: s.season === chosen ? 'bg-chosen font-semibold' : '' })}
        columns={[
          {
            name: 'season',
            cell: ({ season }) => (
              <button
                className="cursor-pointer text-left"
                aria-pressed={season === chosen}
                onClick={() => look({ season })}
              >
                {cat.seasons[season]!.name}
              </button>
            ),
          },
          {
            name: 'worst point',
            n: true,
            attributes: (s) => ({ 'data-worst': s.season }),
            cell: (s) => (
              <>
                <Num
                  value={s.worst?.v_V}
                  q="volt"
                  from={worstOrigin(s.season, s)}
                  className={short(s) ? 'text-live' : ''}
                />
                {short(s) && <span className="label text-live"> short</span>}
              </>
            ),
          },
          { name: 'aim', from: AIM, n: true, cell: (s) => <Num value={s.worst?.aim_V} q="volt" /> },
          {
            name: 'where',
            cell: ({ worst }) =>
              worst && (
                <button
                  className="cursor-pointer text-left underline underline-offset-2"
                  onClick={() => look({ line: worst.line, cursor: worst.at_m, vertex: null })}
                >
                  {lines[worst.line]?.name} at <Num value={worst.at_m} q="length" />
                </button>
              ),
          },
          {
            name: 'at the unit',
            from: AT_UNIT,
            n: true,
            cell: (s) => (
              <>
                <Num value={s.v_out_V} q="volt" />
                {s.capped && <span className="label"> front</span>}
              </>
            ),
          },
          { name: 'load', from: LOAD, n: true, cell: (s) => <Num value={s.r_in_ohm} q="ohm" /> },
        ]}
      />
      <p className="label mt-1">
        Peak volts to soil. The load is what the unit sees, its earth included.
        {report.seasons[chosen]?.capped &&
          ' “Front”: the fence is long, and the first microseconds of the pulse set the volts.'}
      </p>
    </Part>
  );
}

function worstOrigin(season: SeasonId, s: SeasonPower): Origin {
  return {
    kind: 'formula',
    title: 'Network of strands, jumpers, cables and soil',
    formula:
      s.r_in_ohm === null
        ? 'open circuit'
        : `V = f(R) with R = ${figureText(s.r_in_ohm, 'ohm', 'metric')} ohm from one solve of the whole network; every stretch an exact leaking line`,
    source: 'Resistive peak model; docs/model.md, Power',
    inputs: [
      {
        name: 'Leakage of an average strand',
        path: `seasons.${season}.leakage_S_per_km`,
        quantity: 'leakage',
      },
      {
        name: 'Leakage falls with height by e over',
        path: 'defaults.network.leakHeight.value',
        quantity: 'height',
      },
      { name: 'A jumper', path: 'defaults.network.jumper.value', quantity: 'ohm' },
      {
        name: '2.5 mm wire, planning',
        path: 'wires.ht25.planning_ohm_per_km',
        quantity: 'perLength',
      },
    ],
  };
}
