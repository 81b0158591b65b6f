import { useMemo, useState } from 'react';
import { say } from '../../core/base/units.js';
import type { Point } from '../../core/plan/schema.js';
import { useCatalogue } from '../../session/catalogue.js';
import { useSession } from '../../session/session.js';
import { useView } from '../../session/view.js';
import { useUnits } from '../../ui/parts/Num.js';
import type { Painted } from '../land/shown.js';
import { MapCanvas } from '../land/MapCanvas.js';
import type { PaintedLook } from '../land/shown.js';
import { paintedOf } from './painted.js';

const STROKES: Record<PaintedLook, React.SVGProps<SVGLineElement>> = {
  ample: { stroke: 'var(--live)', strokeWidth: 5 },
  holds: { stroke: 'var(--live)', strokeWidth: 2.6 },
  short: { stroke: 'var(--warn)', strokeWidth: 3.4, strokeDasharray: '11 6' },
  far: { stroke: 'var(--warn)', strokeWidth: 4, strokeDasharray: '1 8', strokeLinecap: 'round' },
  dead: { stroke: 'var(--ink)', strokeWidth: 1.6, strokeDasharray: '8 5' },
};

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
  return (
    <div className="relative h-full min-h-[280px]">
      <MapCanvas painted={painted} {...(onPress ? { onPress } : {})} />
      <Legend reserve={say(plan.sizing.reserve, 'percent', units)} />
    </div>
  );
}

function Legend({ reserve }: { reserve: string }) {
  // On a phone it would cover the map.
  const [open, setOpen] = useState(() => innerWidth > 700);
  const rows: [PaintedLook, string][] = [
    ['ample', `the aim and ${reserve} more`],
    ['holds', 'the aim'],
    ['short', 'below the aim'],
    ['far', 'far below'],
    ['dead', 'not fed'],
  ];
  return (
    <div className="bg-panel/95 border-rule absolute top-2 right-2 border px-2 py-1 text-[0.857rem]">
      <button
        className="label w-full cursor-pointer text-left"
        aria-expanded={open}
        onClick={() => setOpen(!open)}
      >
        Peak volts
      </button>
      {open && (
        <ul>
          {rows.map(([look, words]) => (
            <li key={look} className="flex items-center gap-2 whitespace-nowrap">
              <svg width={38} height={10} aria-hidden>
                <line x1={1} x2={37} y1={5} y2={5} {...STROKES[look]} />
              </svg>
              {words}
            </li>
          ))}
        </ul>
      )}
    </div>
  );
}
