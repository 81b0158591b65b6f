/**
 * The first half of the pipeline: every line worked out by itself, then which of them hang together.
 * Pure; remembers its last answer by the identity of what it was given.
 */
import { memoByKey, memoLast, sameItems, steady } from './base/memo.js';
import { lineStage, type LineStage } from './lineStage.js';
import { figure, withOverrides, type Catalogue } from './plan/catalogue.js';
import type { Energiser, Gate, Plan } from './plan/schema.js';
import { topologyOf, type Mark, type Topology } from './plan/topology.js';
import { circuitMarks } from './power/circuit.js';
import type { AimedLine } from './power/power.js';
import type { Ground } from './terrain/ground.js';

export interface Stages {
  /** The catalogue with the property's own figures. */
  readonly cat: Catalogue;
  readonly gates: Readonly<Record<string, readonly Gate[]>>;
  readonly staged: Readonly<Record<string, LineStage>>;
  readonly wired: Readonly<Record<string, AimedLine>>;
  readonly topology: Topology;
  /** Lines that hang together, with the energisers that feed them. */
  readonly groups: readonly {
    readonly lines: readonly string[];
    readonly energisers: readonly Energiser[];
  }[];
}

/** Makes the first half of a pipeline, with its own memory. */
export function createStages(): (plan: Plan, ground: Ground, base: Catalogue) => Stages {
  const overridden = memoLast(withOverrides);
  const steadyGates = steady<readonly Gate[]>(sameItems);
  const gatesByLine = memoLast((gates: Plan['gates']) => steadyGates(groupGates(gates)));
  const steadyMarks = steady(sameMarks);
  const oneLine = memoByKey(lineStage);

  return (plan, ground, base) => {
    const cat = overridden(base, plan.overrides);
    const gates = gatesByLine(plan.gates);
    const ids = Object.keys(plan.lines);
    const staged: Record<string, LineStage> = {};
    for (const id of ids) {
      staged[id] = oneLine.call(
        id,
        plan.lines[id]!,
        gates[id] ?? NONE,
        ground,
        plan.soil,
        plan.things,
        plan.climate,
        cat,
      );
    }
    const known = new Set(ids);
    oneLine.keep(known);

    const wired: Record<string, AimedLine> = {};
    for (const id of ids) wired[id] = staged[id]!.wired;
    const found = topologyOf(
      plan.lines,
      marksOf(Object.values(wired), plan.energisers, figure(cat, 'network.piece')),
    );
    const topology = { ...found, marks: steadyMarks(found.marks) };
    const groups = topology.groups.map((group) => ({
      lines: group,
      energisers: Object.values(plan.energisers).filter(
        (e) => e.line !== null && group.includes(e.line),
      ),
    }));
    return { cat, gates, staged, wired, topology, groups };
  };
}

/** No gates: one list, so that identity tells that nothing changed. */
export const NONE: readonly Gate[] = [];

const sameMarks = (a: readonly Mark[], b: readonly Mark[]): boolean =>
  a.length === b.length && a.every((m, i) => m.s === b[i]!.s && m.location === b[i]!.location);

function groupGates(gates: Plan['gates']): Record<string, readonly Gate[]> {
  const out: Record<string, Gate[]> = {};
  for (const gate of Object.values(gates)) (out[gate.line] ??= []).push(gate);
  return out;
}

function marksOf(wired: readonly AimedLine[], energisers: Plan['energisers'], piece: number) {
  const out: Record<string, number[]> = {};
  for (const w of wired) out[w.line.id] = circuitMarks(w, piece);
  for (const e of Object.values(energisers)) if (e.line && out[e.line]) out[e.line]!.push(e.at_m);
  return out;
}
