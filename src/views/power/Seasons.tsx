import { seasonsOf, type SeasonId } from '../../core/plan/catalogue.js';
import type { Energiser } from '../../core/plan/schema.js';
import type { EnergiserReport, SeasonPower } from '../../core/report/schema.js';
import { useCatalogue } from '../../session/catalogue.js';
import { useSession } from '../../session/session.js';
import { look, useView } from '../../session/view.js';
import { DataTable } from '../../ui/parts/DataTable.js';
import { Num, type Origin } from '../../ui/parts/Num.js';
import { PULSE } from './origins.js';

const AIM: Origin = {
  kind: 'default',
  title: 'Aim at the worst point',
  source:
    'The strictest of the stock at that line; each is shown on Strands, and can be changed there',
};
const WHEN: Origin = {
  kind: 'formula',
  title: 'When the peak comes',
  formula: 'after the unit fires: its own rise, the way there, and what comes back',
  source: 'The same pulse; docs/model.md, Pulse',
};

const short = ({ worst }: SeasonPower): boolean => worst !== null && worst.v_V < worst.aim_V;

/** Worst live point by season, with where it is; the chosen season stands out. */
export function Seasons({ report }: { unit: Energiser; report: EnergiserReport }) {
  const cat = useCatalogue();
  const chosen = useView((v) => v.season);
  const plan = useSession((s) => s.plan);
  const rows = seasonsOf(plan, cat).map((season) => ({ season, ...report.seasons[season]! }));
  return (
    <div className="of-volts">
      <DataTable
        label="Volts by season"
        rows={rows}
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
                {season === 'wet' && <span className="label block">kept cut</span>}
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
                  from={worstOrigin(s.season)}
                  className={short(s) ? 'text-stop' : ''}
                />
                {short(s) && <span className="label text-stop"> short</span>}
              </>
            ),
          },
          { name: 'aim', from: AIM, n: true, cell: (s) => <Num value={s.worst?.aim_V} q="volt" /> },
          {
            name: 'where',
            cell: ({ season, worst }) =>
              worst && (
                <button
                  className="cursor-pointer text-left underline underline-offset-2"
                  onClick={() =>
                    look({ season, line: worst.line, cursor: worst.at_m, vertex: null })
                  }
                >
                  {plan.lines[worst.line]?.name} at <Num value={worst.at_m} q="length" />
                </button>
              ),
          },
          { name: 'after', from: WHEN, n: true, cell: (s) => <Num value={s.worst?.peak_s} q="instant" /> }, // prettier-ignore
          {
            name: 'at the unit',
            from: PULSE,
            n: true,
            cell: (s) => <Num value={s.v_out_V} q="volt" />,
          },
        ]}
      />
      <p className="label mt-1">
        Peak of the pulse to soil. A unit is chosen for every season but “not cut”, which shows what
        is left when nobody cuts.
      </p>
    </div>
  );
}

function worstOrigin(season: SeasonId): Origin {
  return {
    ...PULSE,
    inputs: [
      {
        name: 'Leakage of a strand of the usual five',
        path: `seasons.${season}.leakage_S_per_km`,
        quantity: 'leakage',
      },
      {
        name: 'Falls with height by e over',
        path: 'defaults.network.leakHeight.value',
        quantity: 'height',
      },
      { name: 'Inductance that soil adds', path: 'defaults.network.surgeSoil.value' },
      { name: 'Resistance of the soil', path: 'defaults.network.soilResistance.value' },
      {
        name: '2.5 mm wire under the pulse',
        path: 'wires.ht25.pulse_ohm_per_km',
        quantity: 'perLength',
      },
    ],
  };
}
