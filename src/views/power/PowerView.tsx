import { useEffect } from 'react';
import { create } from 'zustand';
import type { Energiser, Point } from '../../core/plan/schema.js';
import type { EnergiserReport } from '../../core/report/schema.js';
import { soilAt } from '../../core/land/things.js';
import { useCatalogue } from '../../session/catalogue.js';
import { commit, useSession } from '../../session/session.js';
import { look, useView, type PowerTab } from '../../session/view.js';
import { Caution, Select } from '../../ui/parts/controls.js';
import { inUnits } from '../../core/base/prose.js';
import { Num, useUnits } from '../../ui/parts/Num.js';
import { Tabs } from '../../ui/parts/Tabs.js';
import type { Painted } from '../land/shown.js';
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

/** What Power looks at beside the plan: the unit, places offered for it, the place pressed on the map. */
const usePicked = create<{
  readonly unit: string | null;
  readonly pins: Painted['pins'];
  readonly pressed: Point | null;
}>(() => ({ unit: null, pins: NO_PINS, pressed: null }));
const onPins = (pins: Painted['pins']) => usePicked.setState({ pins });

/** The unit that is looked at, with its report. */
function useUnit(): { unit: Energiser | undefined; report: EnergiserReport | undefined } {
  const energisers = useSession((s) => s.plan.energisers);
  const reports = useSession((s) => s.report?.energisers);
  const picked = usePicked((p) => p.unit);
  const id = picked && picked in energisers ? picked : Object.keys(energisers)[0];
  return { unit: id ? energisers[id] : undefined, report: id ? reports?.[id] : undefined };
}

/** The volts of a pulse over the map. */
export function PowerView() {
  const tab = useView((v) => v.powerTab);
  const season = useView((v) => v.season);
  const pins = usePicked((p) => p.pins);
  const { report } = useUnit();
  // A first figure may have its worst place elsewhere.
  const worst = report?.about ? undefined : report?.seasons[season]?.worst;
  // The section below shows the worst place, until another one is chosen.
  useEffect(() => {
    if (useView.getState().line === null && worst)
      look({ line: worst.line, cursor: worst.at_m, vertex: null });
    // Once, when the figures are first there: a report may stand before its volts.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [worst === undefined]);
  return (
    <VoltsMap
      pins={tab === 'place' ? pins : NO_PINS}
      land={tab === 'place'}
      onPress={(pressed) => usePicked.setState({ pressed })}
    />
  );
}

/** Which energiser, where, on what earth and supply, and why. */
export function PowerSide() {
  const energisers = useSession((s) => s.plan.energisers);
  const tab = useView((v) => v.powerTab);
  const season = useView((v) => v.season);
  const pressed = usePicked((p) => p.pressed);
  const units = useUnits();
  const { unit, report } = useUnit();
  const ids = Object.keys(energisers);
  const worst = report?.seasons[season]?.worst;
  return (
    <div className="@container relative px-3 pb-3" data-power-panel>
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
                value={unit.id}
                options={ids.map((k) => [k, energisers[k]!.name] as const)}
                onChange={(picked) => usePicked.setState({ unit: picked })}
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
                  className={worst.v_V < worst.aim_V ? 'text-stop font-semibold' : 'font-semibold'}
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
                {tab === 'place' && <Places unit={unit} pressed={pressed} onPins={onPins} />}
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
            {inUnits(
              'Figures for planning. One energiser to a fence; rods at least 10 m from other earths; mains work by a licensed electrician. Check the standard and the rules where you are.',
              units,
            )}
          </Caution>
        </>
      )}
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
