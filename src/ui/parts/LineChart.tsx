/** The one line chart of the program: axes, legend and colours as the scheme has them. */
import {
  CategoryScale,
  Chart as ChartJs,
  Legend,
  LinearScale,
  LineController,
  LineElement,
  PointElement,
  Tooltip,
  type ChartDataset,
  type ScaleOptionsByType,
} from 'chart.js';
import { Chart } from 'react-chartjs-2';
import { useView } from '../../session/view.js';

ChartJs.register(LineController, LinearScale, CategoryScale, PointElement, LineElement, Tooltip, Legend); // prettier-ignore

/** A colour of the scheme by its name, such as `ink`. */
export type Colour = (name: string) => string;

export type Curve = ChartDataset<'line', { x: number; y: number }[]>;

interface Axis {
  readonly title: string;
  readonly min?: number;
  readonly max?: number;
  readonly beginAtZero?: boolean;
  readonly ticks?: Partial<ScaleOptionsByType<'linear'>['ticks']>;
}

interface LineChartProps {
  /** What it shows, for those who hear it. */
  readonly label: string;
  curves(colour: Colour): Curve[];
  readonly x: Axis;
  readonly y: Axis;
  /** Width of the signs of the legend, px. */
  readonly box?: number;
}

/** @param curves asked anew when the scheme changes, since the colours are its own */
export function LineChart({ label, curves, x, y, box }: LineChartProps) {
  const scheme = useView((v) => v.scheme);
  const css = getComputedStyle(document.documentElement);
  const colour: Colour = (name) => css.getPropertyValue(`--${name}`).trim();
  const text = { color: colour('ink'), font: { family: 'Archivo Variable' } };
  const axis = ({ title, ticks, ...limits }: Axis) => ({
    ...limits,
    type: 'linear' as const,
    title: { display: true, text: title, ...text },
    ticks: { ...text, ...ticks },
    grid: { color: colour('rule') },
  });
  return (
    <Chart
      key={scheme}
      type="line"
      role="img"
      aria-label={label}
      data={{ datasets: curves(colour) }}
      options={{
        animation: false,
        maintainAspectRatio: false,
        parsing: false,
        scales: { x: axis(x), y: axis(y) },
        plugins: {
          legend: {
            labels: {
              ...text,
              usePointStyle: true,
              ...(box === undefined ? {} : { boxWidth: box }),
            },
          },
        },
      }}
    />
  );
}
