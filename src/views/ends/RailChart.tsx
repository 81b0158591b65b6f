/** What the end post lifts with against the length of its rail: the schools on one curve, and this end on it. */
import { useMemo } from 'react';
import { toField, unitOf } from '../../core/base/units.js';
import { railCurve } from '../../core/ends/options.js';
import type { Line } from '../../core/plan/schema.js';
import type { EndReport } from '../../core/report/schema.js';
import { useCatalogue } from '../../session/catalogue.js';
import { LineChart } from '../../ui/parts/LineChart.js';
import { useUnits } from '../../ui/parts/Num.js';

export function RailChart({ end, line, frost_m }: { end: EndReport; line: Line; frost_m: number }) {
  const cat = useCatalogue();
  const units = useUnits();
  const made = useMemo(() => railCurve(end, line, frost_m, cat), [end, line, frost_m, cat]);
  const N = (x: number) => Number(toField(x, 'force', units));
  const at = (p: (typeof made.curve)[number], key: 'hinged_N' | 'embedded_N') => ({ x: p.heights, y: N(p[key]) }); // prettier-ignore
  return (
    <figure>
      <figcaption className="heading mb-1">Longer rail, less lift</figcaption>
      <div className="h-[220px]">
        <LineChart
          label="Lift of the end post against the length of the rail in heights of the fence"
          curves={(colour) => {
            const common = { borderColor: colour('ink'), backgroundColor: colour('panel'), borderWidth: 1.6 }; // prettier-ignore
            return [
              { ...common, label: 'posts in the ground', data: made.curve.map((p) => at(p, 'embedded_N')), pointRadius: 0 }, // prettier-ignore
              { ...common, label: 'posts hinged', data: made.curve.map((p) => at(p, 'hinged_N')), pointRadius: 0, borderDash: [6, 4] }, // prettier-ignore
              { ...common, label: 'schools: 1.5, 2, 2.5', data: made.schools.map((p) => at(p, 'embedded_N')), showLine: false, pointStyle: 'circle', pointRadius: 5 }, // prettier-ignore
              { ...common, label: 'this end', data: [at(made.own, 'embedded_N')], showLine: false, pointStyle: 'rectRot', pointRadius: 8, backgroundColor: colour('ink') }, // prettier-ignore
            ];
          }}
          x={{ min: 1.2, max: 3, title: 'rail, heights of the fence' }}
          y={{ title: `end post lifts, ${unitOf('force', units)}` }}
          box={18}
        />
      </div>
    </figure>
  );
}
