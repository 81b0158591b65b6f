/** What Strain looks at: a run of the line and a wire in it, strung as the plan says. */
import { useMemo } from 'react';
import { create } from 'zustand';
import { baysOf, runOf } from '../../core/posts/layout.js';
import type { Catalogue } from '../../core/plan/catalogue.js';
import type { Line, Plan } from '../../core/plan/schema.js';
import type { LineReport, Strain } from '../../core/report/schema.js';
import { strungIn, type BayedRun, type Strung } from '../../core/wire/strung.js';
import { useCatalogue } from '../../session/catalogue.js';
import { useSession } from '../../session/session.js';
import { look, useView } from '../../session/view.js';

export type StrainTab = 'tight' | 'along' | 'table' | 'checks' | 'wires';

export const useStrainTab = create<{ readonly tab: StrainTab; readonly wire: string | null }>(
  () => ({ tab: 'tight', wire: null }),
);

/** A run with one of its wires. */
export interface Strained {
  readonly line: Line;
  readonly report: LineReport;
  readonly bayed: BayedRun;
  readonly index: number;
  readonly wire: string;
  readonly row: Strain;
  readonly strung: Strung;
  readonly climate: Plan['climate'];
  readonly cat: Catalogue;
}

/** Everything of one run and wire; null without strands or posts. */
export function strainedOf(
  line: Line,
  report: LineReport,
  index: number,
  wire: string,
  climate: Plan['climate'],
  cat: Catalogue,
): Strained | null {
  const bayed = baysOf(report)[index];
  const row = report.strain.find((s) => s.run === index && s.wire === wire);
  if (!bayed || !row) return null;
  return { line, report, bayed, index, wire, row, strung: strungIn(line, bayed, wire, cat), climate, cat }; // prettier-ignore
}

/** The run that the cursor is in, with the wire that is looked at. */
export function useStrained(line: Line, report: LineReport): Strained | null {
  const cat = useCatalogue();
  const climate = useSession((s) => s.plan.climate);
  const cursor = useView((v) => v.cursor);
  const asked = useStrainTab((t) => t.wire);
  const index = Math.max(0, runOf(report, cursor ?? report.runs[0]?.from_m ?? 0)?.index ?? 0);
  const wires = [...new Set(report.strain.map((s) => s.wire))];
  const wire = wires.includes(asked ?? '') ? asked! : wires[0];
  return useMemo(
    () => (wire === undefined ? null : strainedOf(line, report, index, wire, climate, cat)),
    [line, report, index, wire, climate, cat],
  );
}

/** Looks at a run: the cursor goes to its middle. */
export const chooseRun = (report: LineReport, index: number): void => {
  const run = report.runs[index];
  if (run) look({ cursor: (run.from_m + run.to_m) / 2 });
};

/** Strands of one wire, their numbers from the ground up. */
export const strandsOf = (line: Line, wire: string): number[] =>
  line.strands.flatMap((s, i) => (s.wire === wire ? [i + 1] : []));
