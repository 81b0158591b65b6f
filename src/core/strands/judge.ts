/** Every rule of a requirement held against a set of strands: the one judgement for bench, findings
 * and proposals. */
import { figure, recordOf, type Catalogue } from '../plan/catalogue.js';
import type { Strand } from '../plan/schema.js';
import type { Need, Requirement, RuleMark } from '../report/schema.js';
import { bottomOf, isBarbed, panelAt } from '../wire/bottom.js';
import { gapLimit } from './requirement.js';

/** A rule counts as at its limit when it is kept by less than this, m: the step of the search. */
const NEAR = 0.01;

/**
 * Marks of every rule that applies.
 * @param strands from the ground up
 * @param pushed sideways give of a wire under the usual push, hot day, m; 0 leaves that rule out
 */
export function judge(
  strands: readonly Strand[],
  need: Requirement,
  cat: Catalogue,
  pushed: (wire: string) => number = () => 0,
): RuleMark[] {
  const out: RuleMark[] = [];
  const mark = (
    about: RuleMark['about'],
    profile: string | null,
    on: number[],
    value: number,
    limit: number,
    most: boolean,
    silent = 0,
  ) => {
    const slack = most ? limit - value : value - limit;
    const state = slack < -silent - 1e-6 ? 'broken' : slack < NEAR - 1e-6 ? 'limit' : 'kept';
    out.push({ about, profile, strands: on, value, limit, state });
  };
  /** A rule that is kept or not, without a distance from its limit. */
  const plain = (about: RuleMark['about'], profile: string | null, on: number[], ok: boolean) =>
    out.push({
      about,
      profile,
      strands: on,
      value: ok ? 1 : 0,
      limit: 1,
      state: ok ? 'kept' : 'broken',
    });
  const rowOf = (about: RuleMark['about']) => need.rows.find((r) => r.about === about);
  const count = strands.length;
  const top = strands[count - 1];
  const live = strands.filter((s) => s.duty === 'live' && !isBarbed(s, cat));

  mark('count', rowOf('count')?.profile ?? null, [], count, need.minStrands, false);
  mark('live', rowOf('live')?.profile ?? null, [], live.length, need.minLive, false);
  if (!top) return out;

  const bottom = bottomOf(strands, cat)!;
  const panel = panelAt(strands, cat);
  const floor = Math.max(0, panel);
  mark('lowest', need.decidedBy.lowest, [floor], bottom.height_m, need.lowestMax_m, true);
  if (panel < 0) mark('clear', null, [0], strands[0]!.height_m, need.lowestMin_m, false);
  mark('top', need.decidedBy.top, [count - 1], top.height_m, need.topMin_m, false);

  // What lies below the top of a panel hangs on it: there is no gap there.
  for (let i = floor; i + 1 < count; i++) {
    const [a, b] = [strands[i]!, strands[i + 1]!];
    const gap = b.height_m - a.height_m;
    const strict = strictest(need.needs, a.height_m, b.height_m);
    if (!strict) continue;
    mark('gap', strict.profile, [i, i + 1], gap, strict.limit, true);
    const opens = pushed(a.wire) + pushed(b.wire);
    if (opens === 0) continue;
    const held = heldOpen(need.needs, a.height_m, b.height_m);
    if (held) {
      // Practice knows what holds to about a tenth: within it, nothing is said.
      const slack = held.limit * figure(cat, 'strands.openingSlack');
      mark('opening', held.profile, [i, i + 1], gap + opens, held.limit, true, slack);
    }
  }

  const lowestLive = rowOf('lowestLive');
  if (need.needs.some((n) => n.lowestLive)) {
    const s = strands[panel < 0 ? 0 : Math.min(panel + 1, count - 1)]!;
    const ok = s.duty === 'live' && !s.switched;
    plain('lowestLive', lowestLive?.profile ?? null, [strands.indexOf(s)], ok);
  }
  if (need.topDuty === 'cold') plain('stepOver', null, [count - 1], top.duty === 'cold');
  // Cold barbed wire on top keeps cattle from leaning without being live.
  if (need.topDuty === 'live')
    plain(
      'topLive',
      rowOf('topLive')?.profile ?? null,
      [count - 1],
      top.duty === 'live' || isBarbed(top, cat),
    );
  if (need.seenTop) plain('seen', rowOf('seen')?.profile ?? null, [count - 1], isSeen(top, cat));
  const barbed = strands.flatMap((s, i) => (isBarbed(s, cat) ? [i] : []));
  if (need.noBarbed) plain('noBarbed', rowOf('noBarbed')!.profile, barbed, barbed.length === 0);
  strands.forEach((s, i) => {
    if (s.duty !== 'live' || barbed.length === 0 || barbed.includes(i)) return;
    const near = barbed.reduce((a, b) => (apart(s, strands[b]!) < apart(s, strands[a]!) ? b : a));
    mark('offBarbed', null, [near, i], apart(s, strands[near]!), need.offBarbed_m, false);
  });
  return out;
}

/** Rope and tape are seen from afar; wire is not. */
export const isSeen = (s: Pick<Strand, 'wire'>, cat: Catalogue): boolean =>
  ['rope', 'tape'].includes(recordOf(cat.wires, s.wire).form);

/** Distance in air between two strands, with what a bracket holds one of them off. */
export const apart = (a: Strand, b: Strand): number =>
  Math.hypot(a.height_m - b.height_m, (a.offset_m ?? 0) - (b.offset_m ?? 0));

/** The need with the least limit for a gap, among those that still care at its height. */
export function strictest(needs: readonly Need[], low: number, high: number) {
  let best: { profile: string; limit: number } | null = null;
  for (const n of needs) {
    // Above what this profile needs, a wider gap is nothing to it.
    if (low >= n.topMin_m - 1e-9) continue;
    const limit = gapLimit(n, low, high);
    if (!best || limit < best.limit) best = { profile: n.profile, limit };
  }
  return best;
}

/** The same for a gap that is pushed open, by those who reach it; null where none does. */
function heldOpen(needs: readonly Need[], low: number, high: number) {
  return strictest(
    needs
      .filter((n) => (low + high) / 2 < n.reach_m)
      .map((n) => ({
        ...n,
        gapMax_m: n.gapMax_m + n.opening_m,
        upperGapMax_m: n.upperGapMax_m + n.opening_m,
      })),
    low,
    high,
  );
}

/** The mark that is furthest over its limit. */
export const worstOver = (marks: readonly RuleMark[]): RuleMark | undefined =>
  marks.reduce<RuleMark | undefined>(
    (a, b) => (!a || b.value - b.limit > a.value - a.limit ? b : a),
    undefined,
  );

/** The rules that are broken. */
export const broken = (marks: readonly RuleMark[]): RuleMark[] =>
  marks.filter((m) => m.state === 'broken');
