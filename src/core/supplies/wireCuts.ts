/** What is cut from the coils of each wire: strands of runs as they are strung, short pieces, where a join may fall. */
import { USES } from '../report/uses.js';
import { addedPosts, fittings } from '../ends/takes.js';
import { figure, recordOf, type Catalogue } from '../plan/catalogue.js';
import type { Line, Plan } from '../plan/schema.js';
import type { LineReport, Report } from '../report/schema.js';
import { jointsOfLine } from '../wire/wires.js';
import { cutMixed, type MixedCutting } from './mixedCoils.js';
import { coilLength, reelsOf } from './takeoff.js';
import { endWire } from './tails.js';

/** A strand of a run, as it comes off the jenny. */
export interface CutRun {
  readonly line: string;
  /** Index among the runs of the line. */
  readonly run: number;
  /** Counted from the ground, from 1. */
  readonly strand: number;
  readonly from_m: number;
  readonly to_m: number;
  /** With its ties and its spare, m. */
  readonly length_m: number;
  /** Of it the tie at the start, m. */
  readonly tie_m: number;
}

/** A short piece: what it is for. */
export interface ShortPiece {
  readonly use: string;
  readonly length_m: number;
}

/** Where a piece lies in its run, over the ground from its start, m; null: at an end of the run. */
export interface Span {
  readonly from_m: number | null;
  /** Where it is joined to the next piece. */
  readonly to_m: number | null;
}

export interface Joined {
  readonly line: string;
  readonly run: number;
  readonly strand: number;
  /** Over the ground from the start of the run, m. */
  readonly along_m: number;
  /** Which kind of joint. */
  readonly joint: string;
}

export interface WireCut {
  readonly wire: string;
  readonly runs: readonly CutRun[];
  readonly shorts: readonly ShortPiece[];
  /** Item of the price book of each reel that may be bought: those that are not left out. */
  readonly reels: readonly string[];
  readonly cutting: MixedCutting;
  /** By coil and piece. */
  readonly spans: readonly (readonly Span[])[];
  /** In the order of the pieces. */
  readonly joined: readonly Joined[];
  /** Why it could not be cut; the cutting is then empty. */
  readonly fault?: string;
}

/** A part coil that lies in the shed. */
export interface PartCoil {
  readonly wire: string;
  readonly length_m: number;
}

/** What a join costs: its part, and its minutes at the wage. */
export const joinPrice = (joint: string, cat: Catalogue): number => {
  const { price } = recordOf(cat.joints, joint);
  const work = (figure(cat, 'supplies.joinMinutes') / 60) * figure(cat, 'supplies.wage');
  return work + (price ? recordOf(cat.prices, price).price : 0);
};

/**
 * Cuts every wire of a plan that is strung by the coil.
 * @param parts coils that were begun
 */
export function cutWires(
  plan: Plan,
  report: Pick<Report, 'lines' | 'supplies'>,
  cat: Catalogue,
  parts: readonly PartCoil[] = [],
): WireCut[] {
  const wires = [...new Set(Object.values(plan.lines).flatMap((l) => l.strands.filter((s) => !s.kept).map((s) => s.wire)))]; // prettier-ignore
  return wires
    .filter((id) => recordOf(cat.wires, id).form === 'plain')
    .map((wire) => cutOne(wire, plan, report, cat, parts));
}

function cutOne(
  wire: string,
  plan: Plan,
  report: Pick<Report, 'lines' | 'supplies'>,
  cat: Catalogue,
  parts: readonly PartCoil[],
): WireCut {
  const strung = Object.values(plan.lines).flatMap((line) => {
    const of = report.lines[line.id];
    return of ? strandsOf(line, of, wire, cat) : [];
  });
  const runs = strung.map((s) => s.run);
  const shorts = shortsOf(wire, report, cat);
  const offered = reelsOf(wire, cat);
  const wanted = offered.filter((item) => !plan.supplyRows?.[item]?.out);
  const reels = wanted.length > 0 ? wanted : offered;
  const joints = runs.map((r) => jointsOfLine(plan.lines[r.line]!).join);
  const empty = { wire, runs, shorts, reels, spans: [], joined: [], cutting: { coils: [], joins: 0, cost: 0, lower_bound: 0 } }; // prettier-ignore
  try {
    const cutting = cutMixed({
      runs_m: runs.map((r) => r.length_m),
      places_m: strung.map((s) => s.places),
      shorts_m: shorts.map((s) => s.length_m),
      reels: reels.map((item) => ({
        length_m: coilLength(item, cat),
        price: cat.prices[item]!.price,
      })),
      parts_m: parts.filter((p) => p.wire === wire).map((p) => p.length_m),
      join_price: Math.max(0, ...[...new Set(joints)].map((j) => joinPrice(j, cat))),
      min_piece_m: figure(cat, 'supplies.leastPiece'),
    });
    const spans = spansOf(cutting, runs);
    return { ...empty, cutting, spans, joined: joinedAt(cutting, spans, runs, joints) };
  } catch (e) {
    return { ...empty, fault: (e as Error).message };
  }
}

/** Strands of one wire of a line, with the stretches in which a join may fall, from the start of each. */
function strandsOf(line: Line, report: LineReport, wire: string, cat: Catalogue) {
  const spare = 1 + figure(cat, 'supplies.spareWire');
  return report.runs.flatMap((run, k) => {
    const posts = report.posts.filter((p) => p.s_m >= run.from_m - 0.01 && p.s_m <= run.to_m + 0.01); // prettier-ignore
    const kinds = [posts[0], posts.at(-1)].map((p) => p?.kind ?? line.post);
    const free = freeOf(line, report, k, posts, wire, cat);
    return line.strands.flatMap((s, i) => {
      if (s.kept || s.wire !== wire) return [];
      const [start, end] = kinds.map((kind) => endWire(line, s, kind, cat).tie_m);
      return {
        run: {
          line: line.id,
          run: k,
          strand: i + 1,
          from_m: run.from_m,
          to_m: run.to_m,
          length_m: (run.ground_m + start! + end!) * spare,
          tie_m: start!,
        },
        places: free.map(([a, b]) => [a + start!, b + start!] as const),
      };
    });
  });
}

/** Stretches of a run, over the ground from its start, clear of ends, tensioner and posts. */
function freeOf(
  line: Line,
  report: LineReport,
  index: number,
  posts: LineReport['posts'],
  wire: string,
  cat: Catalogue,
): [from: number, to: number][] {
  const clear = figure(cat, 'supplies.joinClear');
  const share = figure(cat, 'supplies.joinInBay');
  const start = posts[0]?.tape_m ?? 0;
  const run = report.runs[index]!;
  const at = report.strain.find((s) => s.run === index && s.wire === wire)?.at_m;
  const tensioner = line.tensioner && at !== undefined ? tapeAt(posts, at) - start : null;
  const out: [number, number][] = [];
  for (let b = 1; b < posts.length; b++) {
    const [from, to] = [posts[b - 1]!.tape_m - start, posts[b]!.tape_m - start];
    const off = share * (to - from);
    const low = Math.max(from + off, clear);
    const high = Math.min(to - off, run.ground_m - clear);
    if (tensioner === null || high < tensioner - clear || low > tensioner + clear) {
      if (high > low) out.push([low, high]);
      continue;
    }
    if (tensioner - clear > low) out.push([low, tensioner - clear]);
    if (high > tensioner + clear) out.push([tensioner + clear, high]);
  }
  return out;
}

/** Over the ground from the start of the line, of a plan distance between posts. */
function tapeAt(posts: LineReport['posts'], s_m: number): number {
  const next = posts.findIndex((p) => p.s_m >= s_m);
  const [a, b] = [posts[Math.max(0, next - 1)], posts[next]];
  if (!a || !b) return s_m;
  const share = b.s_m > a.s_m ? (s_m - a.s_m) / (b.s_m - a.s_m) : 0;
  return a.tape_m + share * (b.tape_m - a.tape_m);
}

/** Pieces that are not strands: brace wires each as long as it is, the others by their usual lengths. */
function shortsOf(
  wire: string,
  report: Pick<Report, 'lines' | 'supplies'>,
  cat: Catalogue,
): ShortPiece[] {
  const uses = report.supplies.find((s) => s.id === `wire.${wire}`)?.uses ?? {};
  const out: ShortPiece[] = [];
  const counted = (use: string, total: number, each: number) => {
    for (let n = Math.round(total / each); n > 0; n--) out.push({ use, length_m: each });
  };
  let braces = 0;
  for (const { ends } of Object.values(report.lines)) {
    for (const e of ends) {
      for (const [item, n, use] of fittings(e, cat)) {
        if (item !== `wire.${wire}` || use !== USES.braceWires) continue;
        const wires = (addedPosts(e).length || 1) * (e.wire === 'both' ? 2 : 1);
        for (let k = 0; k < wires; k++) out.push({ use, length_m: n / wires });
        braces += n;
      }
    }
  }
  // Braces of old lines that stand already were not counted: no more is cut than is counted.
  const wanted = uses[USES.braceWires] ?? 0;
  while (braces > wanted + 1e-6) {
    const last = out.pop();
    if (!last) break;
    braces -= last.length_m;
  }
  const coil = figure(cat, 'supplies.repairCoil');
  for (const [use, total] of Object.entries(uses)) {
    if (use === USES.repairs) counted(use, total, coil);
    else if (use === USES.pieces || use === USES.jumpers || use === USES.rodLeads) {
      const n = Math.max(1, Math.round(total / USUAL_PIECE_M[use]!));
      counted(use, total, total / n);
    }
  }
  return out.filter((s) => s.length_m > 0);
}

/** About how long one is, m. */
const USUAL_PIECE_M: Readonly<Record<string, number>> = {
  [USES.pieces]: 1.4,
  [USES.jumpers]: 0.5,
  [USES.rodLeads]: 4.5,
};

/** A run that has less left than this is at its end, m: lengths are rounded up to tenths. */
const AT_END = 0.5;

/** Where each piece lies in its run: the pieces of a run follow one another from its start. */
function spansOf({ coils }: MixedCutting, runs: readonly CutRun[]): Span[][] {
  const cut = runs.map(() => 0);
  return coils.map(({ pieces }) =>
    pieces.map(({ run, length_m }) => {
      const { tie_m, length_m: whole } = runs[run]!;
      const before = cut[run]!;
      const after = (cut[run]! += length_m);
      return {
        from_m: before > 0 ? before - tie_m : null,
        to_m: whole - after > AT_END ? after - tie_m : null,
      };
    }),
  );
}

/** Where pieces of one run meet. */
const joinedAt = (
  { coils }: MixedCutting,
  spans: readonly (readonly Span[])[],
  runs: readonly CutRun[],
  joints: readonly string[],
): Joined[] =>
  coils.flatMap(({ pieces }, c) =>
    pieces.flatMap(({ run: of }, k) => {
      const along_m = spans[c]![k]!.to_m;
      const { line, run, strand } = runs[of]!;
      return along_m === null ? [] : [{ line, run, strand, along_m, joint: joints[of]! }];
    }),
  );
