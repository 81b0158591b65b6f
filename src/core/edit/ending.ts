/** Ends set by hand, taken back, given to ends alike. */
import { handAt, withEnd } from '../ends/hand.js';
import type { Assembly, EndPlace, Plan } from '../plan/schema.js';
import type { EndReport, LineReport } from '../report/schema.js';

/** One end of a line. */
export interface EndOn {
  readonly line: string;
  readonly end: EndReport;
}

type Change = Parameters<typeof withEnd>[2];

/** Sets or takes back what of a place is set by hand. */
export function setEnd(plan: Plan, id: string, at_m: number, change: Change): void {
  const line = plan.lines[id]!;
  const next = withEnd(line, at_m, change);
  if (next) line.ends = next;
  else delete line.ends;
}

/** The assembly on one side of a place. */
export const setAssembly = (plan: Plan, { line, end }: EndOn, own: Assembly | undefined): void =>
  setEnd(plan, line, end.at_m, { [end.side]: own });

/** Takes all back that was set by hand at a place, of its posts too. */
export const asProposed = (plan: Plan, { line, end }: EndOn): void =>
  setEnd(plan, line, end.at_m, { [end.side]: undefined, post: undefined, depth_m: undefined, setting: undefined, wood: undefined }); // prettier-ignore

/** Ends of all lines that are alike: same strands, same kind of place, same soil. */
export function endsAlike(
  { line, end }: EndOn,
  lines: Readonly<Record<string, LineReport>>,
): EndOn[] {
  const like = (e: EndReport) =>
    JSON.stringify([e.role === 'corner' ? 'end' : e.role, e.side === 'bend', e.soil, e.hinged, e.shared, e.strands.map(([h, t]) => [h, Math.round(t)])]); // prettier-ignore
  const own = like(end);
  return Object.values(lines).flatMap((l) =>
    l.ends.flatMap((e): EndOn[] => {
      const same = l.id === line && e.at_m === end.at_m && e.side === end.side;
      return !same && like(e) === own ? [{ line: l.id, end: e }] : [];
    }),
  );
}

/** Gives what is set by hand at an end to others; what is as proposed there stays so. */
export function copyEnd(plan: Plan, from: EndOn, to: readonly EndOn[]): void {
  const place = handAt(plan.lines[from.line]!, from.end.at_m);
  const { depth_m, setting, wood, post }: Partial<EndPlace> = place ?? {};
  const own = place?.[from.end.side];
  for (const { line, end } of to)
    setEnd(plan, line, end.at_m, { [end.side]: own && { ...own }, depth_m, setting, wood, post });
}
