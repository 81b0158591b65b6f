import { SEASONS } from '../../core/plan/catalogue.js';
import type { Energiser } from '../../core/plan/schema.js';
import { bisect } from '../../core/base/numbers.js';
import { loadLineOf } from '../../core/power/unit.js';
import { plateOfUnit } from '../../core/power/unit.js';
import type { EnergiserReport } from '../../core/report/schema.js';
import { useCatalogue } from '../../session/catalogue.js';
import { LineChart } from '../../ui/parts/LineChart.js';

const POINT = {
  dry: 'rectRot',
  today: 'circle',
  wet: 'triangle',
  weedy: 'cross',
  frozen: 'star',
} as const;

interface LoadLineProps {
  readonly unit: Energiser;
  readonly report: EnergiserReport;
  /** Volts at the worst point, eight in ten, drawn on the line. */
  readonly band?: readonly [low_V: number, high_V: number];
}

/**
 * Peak volts of the chosen unit into a plain load, and the load that the fence is like in each season: the one that
 * leaves the unit the same volts.
 */
export function LoadLineChart({ unit, report, band }: LoadLineProps) {
  const cat = useCatalogue();
  const plate = plateOfUnit(unit, cat);
  const curve = loadLineOf(plate);
  const name = unit.plate ? unit.name : cat.energisers[unit.model]!.name;
  const loads = Array.from({ length: 60 }, (_, k) => 40 * 1.12 ** k).filter((r) => r < 20000);
  const like = (volts: number) => {
    // At the plate's open volts the fence is like no load at all.
    const v_V = Math.min(volts, 0.9999 * curve(1e6));
    const r = Math.exp(bisect((x) => curve(Math.exp(x)) - v_V, 0, Math.log(1e6)));
    return { x: v_V / r, y: v_V / 1000 };
  };
  const [low, high] = band ?? [0, 0];
  const between = band
    ? Array.from({ length: 20 }, (_, k) => like(low + ((high - low) * k) / 19))
    : [];
  return (
    <div className="h-[230px]">
      <LineChart
        label={`Volts of ${name} under load`}
        curves={(colour) => [
          {
            label: name,
            data: loads.map((r) => ({ x: curve(r) / r, y: curve(r) / 1000 })),
            borderColor: colour('ink'),
            borderWidth: 1.6,
            pointRadius: 0,
          },
          ...(band
            ? [
                {
                  label: 'worst point, eight in ten',
                  data: between,
                  borderColor: colour('earth'),
                  borderWidth: 7,
                  pointRadius: 0,
                },
              ]
            : []),
          ...SEASONS.filter((s) => report.seasons[s]).map((s) => ({
            label: cat.seasons[s]!.name,
            data: [like(report.seasons[s]!.v_out_V)],
            pointStyle: POINT[s],
            pointRadius: 6,
            borderColor: colour('live'),
            backgroundColor: colour('panel'),
            borderWidth: 2,
            showLine: false,
          })),
        ]}
        x={{ min: 0, title: 'peak current into a plain load, A' }}
        y={{ min: 0, title: 'peak volts, kV' }}
      />
    </div>
  );
}
