/**
 * Works a plan out part by part. Pure; each stage remembers its last answer by the identity of what it
 * was given, so moving one vertex works out one line and its network.
 */
import { memoLast, memoOn, sameItems, steady } from './base/memo.js';
import { PARTS, type LinePieces, type PartId } from './parts/index.js';
import { inHand, type Hurry, type Items, type Part } from './parts/part.js';
import type { PowerWhole } from './parts/power/index.js';
import { type Catalogue } from './plan/catalogue.js';
import { ownCatalogue } from './plan/ownCatalogue.js';
import { jointsOf, meetingsOf, type Joint, type Meeting } from './plan/meets.js';
import type { Gate, Line, Plan } from './plan/schema.js';
import type { LineReport, Report } from './report/schema.js';
import type { Ground } from './terrain/ground.js';

type Pieces = Record<string, object>;

/** A plan as its parts left it. */
export interface Worked {
  /** The catalogue with the property's own figures. */
  readonly cat: Catalogue;
  readonly gates: Readonly<Record<string, readonly Gate[]>>;
  readonly meetings: readonly Meeting[];
  /** Shared places of each line; the same list while they are the same. */
  readonly joints: Readonly<Record<string, readonly Joint[]>>;
  /** By line and part, all that was found, also what the report does not show. */
  readonly of: Readonly<Record<string, LinePieces>>;
  readonly whole: { readonly power: PowerWhole };
  /** What the report shows of each line; the same object while nothing in it changed. */
  readonly lines: Report['lines'];
  /** What the report shows of the property. */
  readonly shown: Pick<Report, 'energisers' | 'dead' | 'shared' | 'paddocks' | 'gaps' | 'fed'>;
  /** Counts quantities by line, or by what else they belong to. */
  readonly counted: () => Readonly<Record<string, Items>>;
}

export interface PipelineOptions {
  /** Parts that take long may answer as they did last. */
  readonly hurry?: Hurry;
  /** While something is in the hand, parts whose figures of a line nobody looks at; they say of it what they said last. */
  readonly left?: readonly PartId[];
  /** Places that lines share, where that is not to be found from the plan's own lines. */
  readonly joints?: Worked['joints'];
}

export interface Pipeline {
  (plan: Plan, ground: Ground, base: Catalogue, options?: PipelineOptions): Worked;
}

/** No gates: one list, so that identity tells that nothing changed. */
export const NONE: readonly Gate[] = [];
const NO_JOINTS: readonly Joint[] = [];

const sameJoints = (a: readonly Joint[], b: readonly Joint[]): boolean =>
  a.length === b.length && a.every((j, i) => j.s === b[i]!.s && j.shared === b[i]!.shared);

/** Makes a pipeline with its own memory; keep one for each plan that is being edited. */
export function createPipeline(parts: readonly Part[] = PARTS): Pipeline {
  const overridden = memoLast(
    (
      base: Catalogue,
      overrides: Plan['overrides'],
      units: Plan['units'],
      ownWires: Plan['ownWires'],
      breakTests: Plan['breakTests'],
      book: Plan['book'],
      ownItems: Plan['ownItems'],
    ) => ownCatalogue(base, { overrides, units, ownWires, breakTests, book, ownItems }),
  );
  const steadyGates = steady<readonly Gate[]>(sameItems);
  const meetings = memoLast(meetingsOf);
  const steadyJoints = steady<readonly Joint[]>(sameJoints);
  const jointsByLine = memoLast((lines: Plan['lines'], met: readonly Meeting[]) =>
    steadyJoints(jointsOf(lines, met)),
  );
  const gatesByLine = memoLast((gates: Plan['gates']) => steadyGates(groupGates(gates)));
  const stages = parts.map(() => memoOn<object>());
  const reports = memoOn<LineReport>();
  const counts = memoOn<Items>();
  const properties = parts.map((part) => part.property?.());
  const shownKeys = parts.map((part) => Object.keys(part.keys.report.line));

  return (plan, ground, base, { hurry = false, left = [], joints: told } = {}) => {
    const leave = new Set<string>(inHand(hurry) ? left : []);
    const { overrides, units, ownWires, breakTests, book, ownItems } = plan;
    const cat = overridden(base, overrides, units, ownWires, breakTests, book, ownItems);
    const gates = gatesByLine(plan.gates);
    const met = meetings(plan.lines);
    const joints = told ?? jointsByLine(plan.lines, met);
    const of: Record<string, Pieces> = {};
    const lines: Record<string, LineReport> = {};
    for (const [id, line] of Object.entries(plan.lines)) {
      const given = {
        plan,
        cat,
        ground,
        line,
        gates: gates[id] ?? NONE,
        joints: joints[id] ?? NO_JOINTS,
      };
      const pieces: Pieces = (of[id] = {});
      parts.forEach((part, k) => {
        if (!part.line) return;
        const before = leave.has(part.id) ? stages[k]!.last(id) : undefined;
        if (before) return void (pieces[part.id] = before);
        const needs = part.line.needs(given, pieces as never);
        pieces[part.id] = stages[k]!.get(id, Object.values(needs), () =>
          part.line!.work(needs as never),
        );
      });
      const all = Object.values(pieces);
      lines[id] = reports.get(id, [line.name, ...all], () => reportOf(line, pieces));
    }
    const known = new Set(Object.keys(plan.lines));
    for (const memory of [...stages, reports, counts]) memory.keep(known);

    const whole: Pieces = {};
    const shown: Record<string, unknown> = {};
    parts.forEach((part, k) => {
      const given = {
        plan,
        cat,
        ground,
        lines: of as Record<string, never>,
        whole: whole as never,
        meetings: met,
        hurry,
      };
      const piece = properties[k]?.(given);
      if (piece) {
        whole[part.id] = piece;
        for (const key of Object.keys(part.keys.report.property))
          shown[key] = (piece as Record<string, unknown>)[key];
      }
    });
    const counted = () => {
      const all: Record<string, Items> = {};
      for (const [id, line] of Object.entries(plan.lines)) {
        const own = gates[id] ?? NONE;
        all[id] = counts.get(id, [line, own, cat, ...Object.values(of[id]!)], () =>
          countOf(parts, line, own, of[id]!, cat),
        );
      }
      const given = { plan, cat, ground, lines: of as Record<string, never>, whole: whole as never, meetings: met, hurry }; // prettier-ignore
      for (const part of parts)
        for (const [owner, items] of Object.entries(part.countProperty?.(given) ?? {}))
          all[owner] = [...(all[owner] ?? []), ...items];
      return all;
    };
    return {
      cat,
      gates,
      meetings: met,
      joints,
      of,
      whole,
      lines,
      shown,
      counted,
    } as unknown as Worked;
  };

  function reportOf(line: Line, pieces: Pieces): LineReport {
    const out: Record<string, unknown> = { id: line.id, name: line.name };
    parts.forEach((part, k) => {
      const piece = pieces[part.id] as Record<string, unknown> | undefined;
      for (const key of shownKeys[k]!) out[key] = piece?.[key];
    });
    return out as LineReport;
  }
}

/**
 * One line with its gates on its land, and nothing that feeds it. What is taken out here no stage or rule of a single
 * line can see, and all that is left is what their answers rest on: names, notes and the work are nobody's figures.
 */
export function alone(plan: Plan, id: string): Plan {
  const gates = Object.entries(plan.gates).filter(([, gate]) => gate.line === id);
  const rest = { ...plan };
  delete rest.accepted;
  delete rest.build;
  return {
    ...rest,
    name: '',
    lines: { [id]: plan.lines[id]! },
    gates: Object.fromEntries(gates),
    ...NOBODYS,
  };
}

/** Nothing that feeds, no paddocks: one object, so that identity tells that nothing changed. */
const NOBODYS = { energisers: {}, paddocks: {} };

/** `alone` with a memory: the same plan while everything that is left in it is the same. */
export function createAlone(): (plan: Plan, id: string) => Plan {
  const memory = memoOn<Plan>();
  return (plan, id) => {
    const made = alone(plan, id);
    const { lines, gates, ...rest } = made;
    // Keys in one order, so that each is held against itself.
    const on = Object.entries(rest).sort(([a], [b]) => (a < b ? -1 : 1));
    return memory.get(id, [lines[id], ...Object.values(gates), ...on.flat()], () => made);
  };
}

/** What a line takes, by item of the price book; also of a line that is only thought of. */
export function countOf(
  parts: readonly Part[],
  line: Line,
  gates: readonly Gate[],
  of: object,
  cat: Catalogue,
): Items {
  const sums = new Map<string, Items[number]>();
  for (const part of parts) {
    for (const [item, n, at_m, use] of part.count?.({ line, gates, cat, of: of as never }) ?? []) {
      if (n === 0) continue;
      const key = `${item} ${at_m ?? ''} ${use ?? ''}`;
      const sum = (sums.get(key)?.[1] ?? 0) + n;
      sums.set(key, use === undefined && at_m === undefined ? [item, sum] : [item, sum, at_m, use]);
    }
  }
  return [...sums.values()];
}

function groupGates(gates: Plan['gates']): Record<string, readonly Gate[]> {
  const out: Record<string, Gate[]> = {};
  for (const gate of Object.values(gates)) (out[gate.line] ??= []).push(gate);
  return out;
}
