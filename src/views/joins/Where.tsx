import type { Line } from '../../core/plan/schema.js';
import type { LineReport } from '../../core/report/schema.js';
import { useSession } from '../../session/session.js';
import { useWhere } from '../../ui/parts/AlongField.js';

/** A place of a line as one finds it with a tape; nothing while the line is not worked out. */
export function Where({ line, at_m }: { line: string; at_m: number }) {
  const own = useSession((s) => s.plan.lines[line]);
  const report = useSession((s) => s.report?.lines[line]);
  return own && report ? <WhereOn line={own} report={report} at_m={at_m} /> : null;
}

const WhereOn = (p: { line: Line; report: LineReport; at_m: number }) =>
  useWhere(p.line, p.report)(p.at_m);
