/** What the money goes into, as one bar by group; pressing a part leads to its rows. */
import { BarController, BarElement, CategoryScale, Chart as ChartJs, LinearScale, Tooltip } from 'chart.js'; // prettier-ignore
import { Chart } from 'react-chartjs-2';
import { useView } from '../../session/view.js';

ChartJs.register(BarController, BarElement, CategoryScale, LinearScale, Tooltip);

export interface Share {
  readonly name: string;
  readonly cost: number;
}

/** Tones and their order tell the parts apart, and the words below name them. */
const TONES = ['#31475a', '#7b8f9c', '#b08a3c', '#54705a', '#a5b3ad', '#8a7a93'];

interface CostBarProps {
  readonly shares: readonly Share[];
  readonly money: (x: number) => string;
  readonly onPress: (name: string) => void;
}

export function CostBar({ shares, money, onPress }: CostBarProps) {
  // The panel's colour parts the pieces; read again when the scheme changes.
  const scheme = useView((v) => v.scheme);
  const rim = getComputedStyle(document.documentElement).getPropertyValue('--panel').trim();
  const total = shares.reduce((sum, s) => sum + s.cost, 0);
  if (total <= 0) return null;
  return (
    <figure className="at-rest mb-4" aria-label="Cost by group">
      <div className="h-14">
        <Chart
          key={scheme}
          type="bar"
          aria-hidden
          data={{
            labels: [''],
            datasets: shares.map((s, i) => ({
              label: s.name,
              data: [s.cost],
              backgroundColor: TONES[i % TONES.length]!,
              borderColor: rim,
              borderWidth: 1.5,
            })),
          }}
          options={{
            indexAxis: 'y',
            responsive: true,
            maintainAspectRatio: false,
            animation: false,
            onClick: (_, elements) => {
              const hit = elements[0];
              if (hit) onPress(shares[hit.datasetIndex]!.name);
            },
            scales: {
              x: { stacked: true, display: false, max: total },
              y: { stacked: true, display: false },
            },
            plugins: {
              legend: { display: false },
              tooltip: {
                mode: 'nearest',
                callbacks: { label: (c) => `${c.dataset.label}: ${money(Number(c.raw))}` },
              },
            },
          }}
        />
      </div>
      <figcaption className="flex flex-wrap gap-x-5 gap-y-1">
        {shares.map((s, i) => (
          <button
            key={s.name}
            className="inline-flex cursor-pointer items-center gap-1.5 underline-offset-2 hover:underline"
            onClick={() => onPress(s.name)}
          >
            <span
              aria-hidden
              className="border-ink inline-block size-3 border"
              style={{ background: TONES[i % TONES.length] }}
            />
            {s.name} <span className="figure">{money(s.cost)}</span>
            <span className="label">{Math.round((100 * s.cost) / total)} %</span>
          </button>
        ))}
      </figcaption>
    </figure>
  );
}
