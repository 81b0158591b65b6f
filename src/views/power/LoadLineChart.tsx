import {
  CategoryScale,
  Chart as ChartJs,
  Legend,
  LinearScale,
  LineController,
  LineElement,
  PointElement,
  Tooltip,
} from 'chart.js';
import { Chart } from 'react-chartjs-2';
import { SEASONS } from '../../core/plan/catalogue.js';
import type { Energiser } from '../../core/plan/schema.js';
import { loadLineOf } from '../../core/power/unit.js';
import { plateOfUnit } from '../../core/power/unit.js';
import type { EnergiserReport } from '../../core/report/schema.js';
import { useCatalogue } from '../../session/catalogue.js';
import { useView } from '../../session/view.js';

ChartJs.register(
  LineController,
  LinearScale,
  CategoryScale,
  PointElement,
  LineElement,
  Tooltip,
  Legend,
);

const POINT = {
  dry: 'rectRot',
  today: 'circle',
  wet: 'triangle',
  weedy: 'cross',
  frozen: 'star',
} as const;

/** Peak volts of the chosen unit against the load, with where the fence stands in each season. */
export function LoadLineChart({ unit, report }: { unit: Energiser; report: EnergiserReport }) {
  const cat = useCatalogue();
  // Chart colours come from the scheme; a new scheme draws the chart anew.
  const scheme = useView((v) => v.scheme);
  const css = getComputedStyle(document.documentElement);
  const colour = (name: string) => css.getPropertyValue(`--${name}`).trim();
  const plate = plateOfUnit(unit, cat);
  const curve = loadLineOf(plate);
  const name = unit.plate ? unit.name : cat.energisers[unit.model]!.name;
  const loads = Array.from({ length: 60 }, (_, k) => 40 * 1.12 ** k).filter((r) => r < 20000);
  const text = { color: colour('ink'), font: { family: 'Archivo Variable' } };
  return (
    <div className="h-[230px]">
      <Chart
        key={scheme}
        type="line"
        aria-label={`Load line of ${name}`}
        role="img"
        data={{
          datasets: [
            {
              label: name,
              data: loads.map((r) => ({ x: curve(r) / r, y: curve(r) / 1000 })),
              borderColor: colour('ink'),
              borderWidth: 1.6,
              pointRadius: 0,
            },
            ...SEASONS.filter((s) => report.seasons[s]).map((s) => ({
              label: cat.seasons[s]!.name,
              data: [{ x: report.seasons[s]!.i_out_A, y: report.seasons[s]!.v_out_V / 1000 }],
              pointStyle: POINT[s],
              pointRadius: 6,
              borderColor: colour('live'),
              backgroundColor: colour('panel'),
              borderWidth: 2,
              showLine: false,
            })),
          ],
        }}
        options={{
          animation: false,
          maintainAspectRatio: false,
          parsing: false,
          scales: {
            x: {
              type: 'linear',
              title: { display: true, text: 'peak current, A', ...text },
              ticks: text,
              grid: { color: colour('rule') },
              min: 0,
            },
            y: {
              type: 'linear',
              title: { display: true, text: 'peak volts, kV', ...text },
              ticks: text,
              grid: { color: colour('rule') },
              min: 0,
            },
          },
          plugins: { legend: { labels: { ...text, usePointStyle: true } } },
        }}
      />
    </div>
  );
}
