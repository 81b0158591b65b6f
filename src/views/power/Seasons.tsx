import { figureText } from '../../core/base/units.js';
import { SEASONS, type SeasonId } from '../../core/plan/catalogue.js';
import type { Energiser } from '../../core/plan/schema.js';
import type { EnergiserReport, SeasonPower } from '../../core/report/schema.js';
import { Part } from '../../ui/parts/controls.js';
import { Head, Num, type Origin } from '../../ui/parts/Num.js';
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

/** Worst live point by season, with where it is; the chosen season stands out. */
export function Seasons({ unit, report }: { unit: Energiser; report: EnergiserReport }) {
  const cat = useCatalogue();
  const chosen = useView((v) => v.season);
  const lines = useSession((s) => s.plan.lines);
  return (
    <Part title={`${unit.name}: volts at the worst point`}>
      <div className="overflow-x-auto" tabIndex={0} role="group" aria-label="Volts by season">
        <table className="sheet-table">
          <thead>
            <tr>
              <th>season</th>
              <th className="n">worst point</th>
              <Head name="aim" from={AIM} />
              <th>where</th>
              <Head name="at the unit" from={AT_UNIT} />
              <Head name="load" from={LOAD} />
            </tr>
          </thead>
          <tbody>
            {SEASONS.map((season) => {
              const s = report.seasons[season]!;
              return (
                <tr key={season} className={season === chosen ? 'bg-chosen font-semibold' : ''}>
                  <td>
                    <button
                      className="cursor-pointer text-left"
                      aria-pressed={season === chosen}
                      onClick={() => look({ season })}
                    >
                      {cat.seasons[season]!.name}
                    </button>
                  </td>
                  <td className="n" data-worst={season}>
                    <Num
                      value={s.worst?.v_V}
                      q="volt"
                      from={worstOrigin(season, s)}
                      className={s.worst && s.worst.v_V < s.worst.aim_V ? 'text-live' : ''}
                    />
                    {s.worst && s.worst.v_V < s.worst.aim_V && (
                      <span className="label text-live"> short</span>
                    )}
                  </td>
                  <td className="n">
                    <Num value={s.worst?.aim_V} q="volt" />
                  </td>
                  <td>
                    {s.worst && (
                      <button
                        className="cursor-pointer text-left underline underline-offset-2"
                        onClick={() =>
                          look({ line: s.worst!.line, cursor: s.worst!.at_m, vertex: null })
                        }
                      >
                        {lines[s.worst.line]?.name} at <Num value={s.worst.at_m} q="length" />
                      </button>
                    )}
                  </td>
                  <td className="n">
                    <Num value={s.v_out_V} q="volt" />
                    {s.capped && <span className="label"> front</span>}
                  </td>
                  <td className="n">
                    <Num value={s.r_in_ohm} q="ohm" />
                  </td>
                </tr>
              );
            })}
          </tbody>
        </table>
      </div>
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
