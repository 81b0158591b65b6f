/** The map of the property, or of one line, on a single sheet. */
import type { Plan } from '../../core/plan/schema.js';
import type { Leaf } from './leaf.js';
import type { Loaded } from './OnLoaded.js';
import { PrintedSheet } from './PrintedSheet.js';
import { boxOf, scaleFor, sheetsOf, type Paper } from './sheets.js';

/** Everything that must be on the map. @param only the line that it is for; null: all of them */
export const extentOf = (plan: Plan, only: string | null = null) =>
  only === null
    ? boxOf([
        ...Object.values(plan.lines).flatMap((l) => l.vertices),
        ...Object.values(plan.things ?? {}).flatMap((t) => t.points),
        ...Object.values(plan.energisers),
      ])
    : boxOf(plan.lines[only]?.vertices ?? []);

const PAPER: Paper = 'A4 landscape';

/** As leaves of A4 across: one, unless the smallest usual scale is still too large. */
export function mapLeaves({ plan, report, grid }: Loaded, only: string | null): Leaf[] {
  const box = extentOf(plan, only);
  const scale = scaleFor(box, PAPER);
  const sheets = sheetsOf(box, PAPER, scale);
  return sheets.map((sheet) => ({
    key: `${sheet.row}-${sheet.col}`,
    of: only === null ? plan.name : (plan.lines[only]?.name ?? ''),
    draw: (mark) => (
      <PrintedSheet
        sheet={sheet}
        count={sheets.length}
        paper={PAPER}
        scale={scale}
        plan={plan}
        report={report}
        grid={grid}
        asked={{ lengths: true, strands: false, posts: false, corners: true }}
        mark={mark}
      />
    ),
  }));
}
