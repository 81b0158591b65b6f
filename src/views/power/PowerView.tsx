import { useState } from 'react';
import { figureText, unitOf } from '../../core/base/units.js';
import type { Resistance } from '../../core/plan/schema.js';
import { Caution, Choice, Part, QuantityField, Select } from '../../ui/parts/controls.js';
import { useUnits } from '../../ui/parts/Num.js';
import { usual } from '../../core/plan/catalogue.js';
import { useCatalogue } from '../../session/catalogue.js';
import { commit, useSession } from '../../session/session.js';
import { Candidates } from './Candidates.js';
import { Earth } from './Earth.js';
import { LoadLineChart } from './LoadLineChart.js';
import { Seasons } from './Seasons.js';

/** Which energiser, on what earth: volts at the worst point in every season, and why. */
export function PowerView() {
  const energisers = useSession((s) => s.plan.energisers);
  const reports = useSession((s) => s.report?.energisers);
  const [picked, setPicked] = useState<string | null>(null);
  const ids = Object.keys(energisers);
  const id = picked && picked in energisers ? picked : ids[0];
  if (!id) {
    return (
      <p className="p-4">
        No energiser yet. On Land press E, then press the place where it stands beside a line.
      </p>
    );
  }
  const unit = energisers[id]!;
  const report = reports?.[id];
  return (
    <div className="h-full overflow-auto p-4">
      <div className="mb-4 flex flex-wrap items-center gap-x-5 gap-y-2">
        {ids.length > 1 && (
          <Select
            label="Energiser"
            value={id}
            options={ids.map((k) => [k, energisers[k]!.name] as const)}
            onChange={setPicked}
          />
        )}
        <Sizing />
      </div>
      {report ? (
        <div className="grid gap-x-8 min-[1180px]:grid-cols-2">
          <div>
            <Seasons unit={unit} report={report} />
            <Candidates unit={unit} report={report} />
          </div>
          <div>
            <Earth unit={unit} report={report} />
            <Part title="Load line">
              <LoadLineChart unit={unit} report={report} />
            </Part>
          </div>
        </div>
      ) : (
        <p role="status">
          {unit.line
            ? 'Working it out …'
            : `${unit.name} feeds no line. Put it down beside one on Land.`}
        </p>
      )}
      <Caution>
        Figures for planning. One energiser to a fence; rods at least 10 m from other earths; mains
        work by a licensed electrician. Check the standard and the rules where you are.
      </Caution>
    </div>
  );
}

/** How careful the reckoning is: effective resistance, reserve, soil. */
function Sizing() {
  const sizing = useSession((s) => s.plan.sizing);
  const soil = useSession((s) => s.plan.soil);
  const cat = useCatalogue();
  const units = useUnits();
  const perLength = (r: Resistance) =>
    figureText(cat.wires[usual('wire')]![`${r}_ohm_per_km`], 'perLength', units);
  return (
    <>
      <span className="inline-flex items-center gap-1.5">
        <span className="label">Wire under the pulse</span>
        <Choice<Resistance>
          label="Effective resistance of the wire"
          title={cat.wires[usual('wire')]!.why}
          value={sizing.resistance}
          options={[
            ['planning', `planning ${perLength('planning')}`],
            ['best', `best estimate ${perLength('best')}`],
            ['guaranteed', `guaranteed ${perLength('guaranteed')}`],
          ]}
          onChange={(r) =>
            commit(`resistance: ${r}`, (d) => {
              d.sizing.resistance = r;
            })
          }
        />
        <span className="label">{unitOf('perLength', units)}</span>
      </span>
      <QuantityField
        label="Reserve"
        q="percent"
        at="sizing/reserve"
        value={sizing.reserve}
        width="w-14"
        onCommit={(r) =>
          commit('reserve', (d) => {
            d.sizing.reserve = r;
          })
        }
      />
      <Select
        label="Soil at the rods"
        value={soil}
        options={Object.entries(cat.soils).map(([k, s]) => [k, s.name] as const)}
        onChange={(s) =>
          commit(`soil: ${s}`, (d) => {
            d.soil = s;
          })
        }
      />
    </>
  );
}
