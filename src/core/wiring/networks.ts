/** The networks of a plan from its report, where they are asked about beside the evaluation. */
import { figure, type Catalogue } from '../plan/catalogue.js';
import type { Gate, Plan } from '../plan/schema.js';
import { topologyOf } from '../plan/topology.js';
import { placesNamed } from '../power/circuit.js';
import type { AimedLine, Fence } from '../power/wired.js';
import type { Report } from '../report/schema.js';

/**
 * Lines that hang together, each group once, with the first unit on it, or none. A line that the report does not have
 * yet is left out.
 */
export function fencesOf(plan: Plan, report: Pick<Report, 'lines'>, cat: Catalogue): Fence[] {
  const gates = new Map<string, Gate[]>();
  for (const g of Object.values(plan.gates)) gates.set(g.line, [...(gates.get(g.line) ?? []), g]);
  const wired: Record<string, AimedLine> = {};
  for (const line of Object.values(plan.lines)) {
    const runs = report.lines[line.id]?.runs;
    if (runs) wired[line.id] = { line, gates: gates.get(line.id) ?? [], runs, aim_V: 0 };
  }
  const lines = Object.fromEntries(Object.keys(wired).map((id) => [id, plan.lines[id]!]));
  const marks = placesNamed(wired, plan.energisers, figure(cat, 'network.piece'));
  const topology = topologyOf(lines, marks);
  return topology.groups.map((ids) => {
    const on = Object.values(plan.energisers).find((e) => e.line !== null && ids.includes(e.line));
    return { energiser: on ?? null, ids, wired, topology, plan, cat };
  });
}
