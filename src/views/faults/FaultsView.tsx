/** The map of a search: how likely the fault lies where, what was read, and where to go next. */
import { useEffect, useMemo } from 'react';
import { say } from '../../core/base/units.js';
import type { Logged } from '../../core/rounds/logged.js';
import { nearestOnLines } from '../../core/rounds/points.js';
import { planLength, pointAt } from '../../core/plan/geometry.js';
import type { Point } from '../../core/plan/schema.js';
import { useSession } from '../../session/session.js';
import { look } from '../../session/view.js';
import { useUnits } from '../../ui/parts/Num.js';
import { MapCanvas } from '../land/MapCanvas.js';
import { PaintLegend } from '../land/PaintLegend.js';
import type { Likely, Painted, PaintedLook } from '../land/shown.js';
import { valueWords } from '../rounds/rounds.js';
import type { LineStretch } from '../../core/rounds/verdict.js';
import { placeAsked } from './asked.js';
import { useFaults, useSearch } from './faults.js';
import { usePractice, usePracticeSearch } from './practice.js';

const ROWS: readonly (readonly [PaintedLook, string])[] = [
  ['half', 'one half lies here'],
  ['most', 'four fifths, with these'],
  ['rest', 'nearly all, with these'],
  ['clear', 'hardly here'],
];
const UP_TO: readonly (readonly [Likely, number])[] = [
  ['half', 0.5],
  ['most', 0.8],
  ['rest', 0.97],
];

/** Each stretch by the smallest lot of the likeliest that it belongs to. */
export function looksOf(
  chances: readonly LineStretch[],
): readonly (LineStretch & { readonly look: Likely })[] {
  const perMetre = (c: LineStretch) => c.p / Math.max(1, c.to_m - c.from_m);
  let held = 0;
  const looks = new Map<LineStretch, Likely>();
  for (const c of [...chances].sort((a, b) => perMetre(b) - perMetre(a))) {
    looks.set(c, UP_TO.find(([, upTo]) => held < upTo)?.[0] ?? 'clear');
    held += c.p;
  }
  // Neighbours of one look are one stretch.
  return chances.reduce<(LineStretch & { look: Likely })[]>((out, c) => {
    const own = looks.get(c)!;
    const last = out.at(-1);
    if (last && last.line === c.line && last.look === own && Math.abs(c.from_m - last.to_m) < 0.5)
      out[out.length - 1] = { ...last, to_m: c.to_m, p: last.p + c.p };
    else out.push({ ...c, look: own });
    return out;
  }, []);
}

const NONE: readonly Logged[] = [];

export function FaultsView() {
  const plan = useSession((s) => s.plan);
  const units = useUnits();
  const searched = useSearch();
  const practising = usePractice((p) => p.on);
  const hunt = usePractice((p) => p.of);
  const practice = usePracticeSearch();
  const { answer, next: led } = practising ? practice : searched;
  const search = answer.value;
  // An older proposal is none: the place may just have been read.
  const next = led.waiting ? undefined : led.value?.[0];
  const read = practising ? (hunt?.readings ?? NONE) : (searched.round?.readings ?? NONE);
  const unit = practising ? (hunt?.unit ?? null) : (searched.unit?.id ?? null);
  const was = practising ? (hunt?.end?.hidden.at ?? null) : null;
  const asked = useFaults((f) => f.asked);
  useEffect(() => {
    const lines: Record<string, LineStretch[]> = {};
    for (const c of search?.chances ?? []) (lines[c.line] ??= []).push(c);
    look({ chances: search ? lines : null });
    return () => look({ chances: null });
  }, [search]);
  const painted = useMemo((): Painted => {
    const at = ({ line, at_m }: { line: string; at_m: number }): Point => pointAt(plan.lines[line]!.vertices, at_m);
    const known = (line: string | null): line is string => line !== null && plan.lines[line] !== undefined;
    return {
      land: true,
      stretches: [
        ...looksOf(search?.chances ?? []).filter((c) => known(c.line)),
        // Of what is not searched, or not yet, the lines alone.
        ...Object.values(plan.lines).flatMap((l) => (search?.chances.some((c) => c.line === l.id) ? [] : [{ line: l.id, from_m: 0, to_m: planLength(l), look: 'clear' as const }])),
      ],
      words: {},
      pins: [
        ...read.flatMap((r) => (known(r.line) && r.at_m !== null ? [{ at: at({ line: r.line, at_m: r.at_m }), words: valueWords(r.kind, r.value, units), strong: false }] : [])),
        ...(was && known(was.line) ? [{ at: at(was), words: 'here it was', strong: true }] : []),
        ...(asked && known(asked.line) ? [{ at: asked.at, words: 'to be read', strong: true }] : next && known(next.line) ? [{ at: at(next), words: `next: ${say(next.minutes, 'minutes', units)}`, strong: true }] : []),
      ],
    };
  }, [search, next, read, plan, units, asked, was]);
  const press = (p: Point) => {
    const found = nearestOnLines(plan.lines, p);
    if (unit && found && found.m < 30) placeAsked(unit, found.line, found.at_m);
  };
  return (
    <div className="relative h-full min-h-[280px]">
      <MapCanvas painted={painted} onPress={press} />
      {search && <PaintLegend title="Where the fault lies" rows={ROWS} />}
    </div>
  );
} // prettier-ignore
