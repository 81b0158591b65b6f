import { useEffect, useState } from 'react';
import type { Energiser, Point } from '../../core/plan/schema.js';
import { soilAt } from '../../core/land/things.js';
import { useCatalogue } from '../../session/catalogue.js';
import { commit, useSession } from '../../session/session.js';
import { look, useView, type PowerTab } from '../../session/view.js';
import { Caution, Select } from '../../ui/parts/controls.js';
import { Num } from '../../ui/parts/Num.js';
import { Tabs } from '../../ui/parts/Tabs.js';
import type { Painted } from '../land/layers.js';
import { Earth } from './Earth.js';
import { Feel } from './Feel.js';
import { PULSE } from './origins.js';
import { Places } from './Places.js';
import { Seasons } from './Seasons.js';
import { Supply } from './Supply.js';
import { Sure } from './Sure.js';
import { Units } from './Units.js';
import { VoltsMap } from './VoltsMap.js';
import { WhatIf } from './WhatIf.js';

const TABS: readonly (readonly [PowerTab, string])[] = [
  ['volts', 'Volts'],
  ['unit', 'Unit'],
  ['place', 'Where'],
  ['feel', 'Felt'],
  ['earth', 'Earth'],
  ['supply', 'Supply'],
  ['whatIf', 'What if'],
  ['sure', 'How sure'],
];

const NO_PINS: Painted['pins'] = [];

/** Which energiser, where, on what earth and supply: the volts of a pulse on map and section, and why. */
export function PowerView() {
  const energisers = useSession((s) => s.plan.energisers);
  const reports = useSession((s) => s.report?.energisers);
  const tab = useView((v) => v.powerTab);
  const season = useView((v) => v.season);
  const [picked, setPicked] = useState<string | null>(null);
  const [pins, setPins] = useState<Painted['pins']>(NO_PINS);
  const [pressed, setPressed] = useState<Point | null>(null);
  const ids = Object.keys(energisers);
  const id = picked && picked in energisers ? picked : ids[0];
  const unit = id ? energisers[id] : undefined;
  const report = id ? reports?.[id] : undefined;
  const worst = report?.seasons[season]?.worst;
  // The section below shows the worst place, until another one is chosen.
  useEffect(() => {
    if (useView.getState().line === null && worst)
      look({ line: worst.line, cursor: worst.at_m, vertex: null });
    // Once, when the figures are first there.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [report === undefined]);
  return (
    <div className="grid h-full grid-cols-[minmax(300px,1fr)_minmax(400px,1.1fr)] max-[1000px]:h-auto max-[1000px]:grid-cols-1">
      <div className="min-h-0 max-[1000px]:h-[300px]">
        <VoltsMap
          pins={tab === 'place' ? pins : NO_PINS}
          land={tab === 'place'}
          onPress={setPressed}
        />
      </div>
      <div
        className="border-rule min-h-0 overflow-auto border-l px-3 pb-3 max-[1000px]:border-l-0"
        data-power-panel
      >
        {!unit ? (
          <p className="pt-3">
            No energiser yet. On Land press E, then press the place where it stands beside a line.
          </p>
        ) : (
          <>
            <div className="flex flex-wrap items-center gap-x-4 gap-y-1 pt-2">
              {ids.length > 1 ? (
                <Select
                  label="Energiser"
                  value={id!}
                  options={ids.map((k) => [k, energisers[k]!.name] as const)}
                  onChange={setPicked}
                />
              ) : (
                <strong>{unit.name}</strong>
              )}
              {worst && (
                <span>
                  worst point {report?.about && 'about '}
                  <Num
                    value={worst.v_V}
                    q="volt"
                    from={PULSE}
                    className={
                      worst.v_V < worst.aim_V ? 'text-live font-semibold' : 'font-semibold'
                    }
                  />{' '}
                  <span className="label">
                    aim <Num value={worst.aim_V} q="volt" />
                  </span>
                </span>
              )}
            </div>
            <Tabs
              label="About the power"
              tabs={TABS}
              chosen={tab}
              onChoose={(t) => look({ powerTab: t, beside: null })}
            >
              {!report || report.about ? (
                <p role="status">
                  {unit.line
                    ? report
                      ? 'A first figure; the pulse is being worked out …'
                      : 'Working it out …'
                    : `${unit.name} feeds no line. Put it down beside one on Land.`}
                </p>
              ) : (
                <>
                  {tab === 'volts' && <Seasons unit={unit} report={report} />}
                  {tab === 'unit' && <Units unit={unit} report={report} />}
                  {tab === 'place' && <Places unit={unit} pressed={pressed} onPins={setPins} />}
                  {tab === 'feel' && <Feel unit={unit} report={report} />}
                  {tab === 'earth' && (
                    <>
                      <SoilChoice unit={unit} />
                      <Earth unit={unit} report={report} />
                    </>
                  )}
                  {tab === 'supply' && <Supply unit={unit} />}
                  {tab === 'whatIf' && <WhatIf unit={unit} report={report} />}
                  {tab === 'sure' && <Sure unit={unit} report={report} />}
                </>
              )}
            </Tabs>
            <Caution>
              Figures for planning. One energiser to a fence; rods at least 10 m from other earths;
              mains work by a licensed electrician. Check the standard and the rules where you are.
            </Caution>
          </>
        )}
      </div>
    </div>
  );
}

function SoilChoice({ unit }: { unit: Energiser }) {
  const cat = useCatalogue();
  const plan = useSession((s) => s.plan);
  const own = soilAt(plan, unit);
  return (
    <span className="flex flex-wrap items-center gap-2">
      <Select
        label="Soil of the property"
        value={plan.soil}
        options={Object.entries(cat.soils).map(([k, s]) => [k, s.name] as const)}
        onChange={(s) => commit(`soil: ${s}`, (d) => void (d.soil = s))}
      />
      {own !== plan.soil && (
        <span className="label">at these rods: {cat.soils[own]?.name}, a patch on Land</span>
      )}
    </span>
  );
}
