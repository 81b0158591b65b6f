/** What the end post lifts with against the length of its rail: the schools on one curve, and this end on it. */
import { CategoryScale, Chart as ChartJs, Legend, LinearScale, LineController, LineElement, PointElement, Tooltip } from 'chart.js'; // prettier-ignore
import { useMemo } from 'react';
import { Chart } from 'react-chartjs-2';
import { toField, unitOf } from '../../core/base/units.js';
import { railCurve } from '../../core/ends/options.js';
import type { Line } from '../../core/plan/schema.js';
import type { EndReport } from '../../core/report/schema.js';
import { useCatalogue } from '../../session/catalogue.js';
import { useView } from '../../session/view.js';
import { useUnits } from '../../ui/parts/Num.js';

ChartJs.register(LineController, LinearScale, CategoryScale, PointElement, LineElement, Tooltip, Legend); // prettier-ignore

export function RailChart({ end, line, frost_m }: { end: EndReport; line: Line; frost_m: number }) {
  const cat = useCatalogue();
  const units = useUnits();
  const scheme = useView((v) => v.scheme);
  const made = useMemo(() => railCurve(end, line, frost_m, cat), [end, line, frost_m, cat]);
  const css = getComputedStyle(document.documentElement);
  const colour = (name: string) => css.getPropertyValue(`--${name}`).trim();
  const text = { color: colour('ink'), font: { family: 'Archivo Variable' } };
  const N = (x: number) => Number(toField(x, 'force', units));
  const at = (p: (typeof made.curve)[number], key: 'hinged_N' | 'embedded_N') => ({ x: p.heights, y: N(p[key]) }); // prettier-ignore
  const common = { borderColor: colour('ink'), backgroundColor: colour('panel'), borderWidth: 1.6 };
  return (
    <figure>
      <figcaption className="heading mb-1">Longer rail, less lift</figcaption>
      <div className="h-[220px]">
        <Chart
          key={scheme}
          type="line"
          role="img"
          aria-label="Lift of the end post against the length of the rail in heights of the fence"
          data={{
            datasets: [
              { ...common, label: 'posts in the ground', data: made.curve.map((p) => at(p, 'embedded_N')), pointRadius: 0 }, // prettier-ignore
              { ...common, label: 'posts hinged', data: made.curve.map((p) => at(p, 'hinged_N')), pointRadius: 0, borderDash: [6, 4] }, // prettier-ignore
              { ...common, label: 'schools: 1.5, 2, 2.5', data: made.schools.map((p) => at(p, 'embedded_N')), showLine: false, pointStyle: 'circle', pointRadius: 5 }, // prettier-ignore
              { ...common, label: 'this end', data: [at(made.own, 'embedded_N')], showLine: false, pointStyle: 'rectRot', pointRadius: 8, backgroundColor: colour('ink') }, // prettier-ignore
            ],
          }}
          options={{
            animation: false,
            maintainAspectRatio: false,
            parsing: false,
            scales: {
              x: { type: 'linear', min: 1.2, max: 3, title: { display: true, text: 'rail, heights of the fence', ...text }, ticks: text, grid: { color: colour('rule') } }, // prettier-ignore
              y: { type: 'linear', title: { display: true, text: `end post lifts, ${unitOf('force', units)}`, ...text }, ticks: text, grid: { color: colour('rule') } }, // prettier-ignore
            },
            plugins: { legend: { labels: { ...text, usePointStyle: true, boxWidth: 18 } } },
          }}
        />
      </div>
    </figure>
  );
}
