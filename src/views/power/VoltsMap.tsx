import { useMemo } from 'react';
import { say } from '../../core/base/units.js';
import type { Point } from '../../core/plan/schema.js';
import { useCatalogue } from '../../session/catalogue.js';
import { useSession } from '../../session/session.js';
import { useView } from '../../session/view.js';
import { useUnits } from '../../ui/parts/Num.js';
import type { Painted } from '../land/shown.js';
import { MapCanvas } from '../land/MapCanvas.js';
import { PaintLegend } from '../land/PaintLegend.js';
import type { PaintedLook } from '../land/shown.js';
import { paintedOf } from './painted.js';

const NO_PINS: Painted['pins'] = [];

/** The volts of the chosen season painted on the lines, with what the paint means. */
export function VoltsMap({
  pins = NO_PINS,
  land,
  onPress,
}: {
  /** Further places to be shown. */
  pins?: Painted['pins'];
  /** Water, mains and paddocks stand on it too. */
  land: boolean;
  onPress?: (p: Point) => void;
}) {
  const plan = useSession((s) => s.plan);
  const report = useSession((s) => s.report);
  const season = useView((v) => v.season);
  const units = useUnits();
  const cat = useCatalogue();
  const painted = useMemo((): Painted => {
    if (!report) return { stretches: [], words: {}, pins: [], land };
    const of = paintedOf(plan, report, season, units, cat);
    return { ...of, land, pins: [...of.pins, ...pins] };
  }, [plan, report, season, units, cat, pins, land]);
  const rows: [PaintedLook, string][] = [
    ['ample', `the aim and ${say(plan.sizing.reserve, 'percent', units)} more`],
    ['holds', 'the aim'],
    ['short', 'below the aim'],
    ['far', 'far below'],
    ['dead', 'not fed'],
  ];
  return (
    <div className="of-volts relative h-full min-h-[280px]">
      <MapCanvas painted={painted} {...(onPress ? { onPress } : {})} />
      <PaintLegend title="Peak volts" rows={rows} />
    </div>
  );
}
