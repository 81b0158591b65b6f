/** What would help a fence that is too weak, each with the volts that it brings at the worst point. */
import { atOnce, type Steps } from '../base/steps.js';
import { figure } from '../plan/catalogue.js';
import { nearest, pointAt } from '../plan/geometry.js';
import type { PatchStep, Strand } from '../plan/schema.js';
import { carries } from '../power/leakage.js';
import { offeredUnits, plateOfUnit, unitOfPlate } from '../power/unit.js';
import type { Electric, Network } from '../power/wired.js';
import type { FeedPlace } from './places.js';
import { decidingSeason, type Score } from './worst.js';

export interface Remedy {
  readonly id:
    'place' | 'bare' | 'raise' | 'switch' | 'fewer' | 'wire' | 'tie' | 'split' | 'joules';
  readonly words: string;
  readonly score: Score;
  /** Makes it so, where it is a matter of this step; null: it is done elsewhere, or by hand. */
  readonly patch: readonly PatchStep[] | null;
  /** What else it costs or asks. */
  readonly but: string;
}

/** How far the lowest strand is thought to be raised, m. */
const RAISED = 0.1;
/** A place that a coarse pulse puts so far below the best is not the best; and so many of the others are looked at. */
const MAYBE = 0.95;
const MOST = 4;
/** The wire that carries the pulse best. */
const COATED = 'al25';

/** What helps, beside how it stands now. */
export interface Helps {
  readonly now: Score;
  readonly remedies: Remedy[];
}

/** Remedies in the order of what they bring; none that brings nothing. */
export const remediesOf = (net: Network, places: readonly FeedPlace[]): Helps | null =>
  atOnce(remediesInSteps(net, places));

/** The same in steps, one for each that is tried. */
export function* remediesInSteps(net: Network, places: readonly FeedPlace[]): Steps<Helps | null> {
  const now = decidingSeason(net);
  if (!now) return null;
  const { cat, energiser } = net;
  const out: Remedy[] = [];
  const put = (remedy: Omit<Remedy, 'score'>, score: Score | null) => {
    if (score && score.share > now.share * 1.01) out.push({ ...remedy, score });
  };
  const free = places.filter(
    (p) => p.kind !== 'now' && p.kind !== 'pressed' && doubtsOf(p, net).length === 0,
  );
  // They may have been ranked coarsely: those near the first are looked at again.
  const near = free.filter((p) => p.score.share > MAYBE * free[0]!.score.share).slice(0, MOST);
  // All that is tried: those places, and what is put out below.
  const all = near.length + 7;
  let tried = 0;
  const scored = [];
  for (const place of near) {
    const { line, at_m, lead_m } = place;
    scored.push({ place, score: decidingSeason(net, { feed: { line, at_m, lead_m } }) });
    yield ++tried / all;
  }
  const first = scored.reduce<(typeof scored)[number] | null>((a, b) => (b.score && b.score.share > (a?.score?.share ?? 0) ? b : a), null); // prettier-ignore
  if (first) {
    const best = first.place;
    put(
      {
        id: 'place',
        words: `Put the unit at ${best.name}`,
        patch: placePatch(energiser.id, best),
        but: `lead-out of ${Math.round(best.lead_m)} m; its rods want moist ground there`,
      },
      first.score,
    );
  }
  put(
    {
      id: 'bare',
      words: 'Keep the growth away from every line',
      patch: null,
      but: 'cut, graze or spray again and again',
    },
    decidingSeason(net, { growth: figure(cat, 'growth.bare') }),
  );
  yield ++tried / all;
  put(
    {
      id: 'raise',
      words: 'Raise the lowest live strand',
      patch: null,
      but: 'what squeezes under decides: look at Strands',
    },
    decidingSeason(withStrands(net, raised)),
  );
  yield ++tried / all;
  put(
    {
      id: 'switch',
      words: 'Switch the lowest live strand off while the grass is long',
      patch: switchPatch(net),
      but: 'nothing stops the small ones then',
    },
    decidingSeason(withStrands(net, switched)),
  );
  yield ++tried / all;
  put(
    {
      id: 'fewer',
      words: 'One live strand fewer on each line',
      patch: null,
      but: 'what the strands must hold decides: look at Strands',
    },
    decidingSeason(withStrands(net, fewer)),
  );
  yield ++tried / all;
  if (cat.wires[COATED])
    put(
      {
        id: 'wire',
        words: `Wire: ${cat.wires[COATED].name}`,
        patch: null,
        but: 'dearer; helps long lines, not a unit that is too weak',
      },
      decidingSeason(withStrands(net, coated)),
    );
  yield ++tried / all;
  const tie = tieFor(net, now);
  if (tie) put({ id: 'tie', words: `Tie the worst place to ${tie.name} with ${Math.round(tie.link.length_m)} m of cable`, patch: null, but: 'a second way in, also when a strand breaks' }, decidingSeason(net, { links: [tie.link] })); // prettier-ignore
  yield ++tried / all;
  const strongest = offeredUnits(cat)
    .filter(([model]) => model !== energiser.model)
    .at(-1);
  if (strongest)
    put(
      {
        id: 'joules',
        words: `The strongest unit allowed: ${strongest[1].name}`,
        patch: [{ op: 'replace', path: `/energisers/${energiser.id}/model`, value: strongest[0] }],
        but: `its supply is ${strongest[1].supply}`,
      },
      decidingSeason(net, { unit: unitOfPlate(strongest[1]) }),
    );
  return { now, remedies: out.sort((a, b) => b.score.share - a.score.share) };
}

/** What a rule would hold against a place for a unit: another earth too near, or a mains unit far from any supply. */
export function doubtsOf(
  place: FeedPlace,
  { energiser, cat }: Pick<Network, 'energiser' | 'cat'>,
): ('earth' | 'mains')[] {
  const near = place.earth_m !== null && place.earth_m < figure(cat, 'land.earthsApart');
  const onMains = plateOfUnit(energiser, cat).supply === 'mains';
  const far = onMains && place.mains_m !== null && place.mains_m > figure(cat, 'land.mainsReach');
  return [...(near ? (['earth'] as const) : []), ...(far ? (['mains'] as const) : [])];
}

export const placePatch = (energiser: string, place: FeedPlace): PatchStep[] =>
  Object.entries({ e: place.at.e, n: place.at.n, line: place.line, at_m: place.at_m }).map(
    ([key, value]) => ({ op: 'replace', path: `/energisers/${energiser}/${key}`, value }),
  );

/** The network with other strands on its lines. */
export const withStrands = (
  net: Network,
  change: (strands: readonly Strand[]) => readonly Strand[],
): Network => ({
  ...net,
  wired: Object.fromEntries(
    Object.entries(net.wired).map(([id, w]) => {
      const line: Electric = { ...w.line, strands: [...change(w.line.strands)] };
      return [id, { ...w, line }];
    }),
  ),
});

const lowestLive = (strands: readonly Strand[]): number =>
  strands.reduce((k, s, i) => (s.duty === 'live' && (k < 0 || s.height_m < strands[k]!.height_m) ? i : k), -1); // prettier-ignore

const liveCount = (strands: readonly Strand[]): number =>
  strands.filter((s) => s.duty === 'live').length;

const raised = (strands: readonly Strand[]): readonly Strand[] => {
  const k = lowestLive(strands);
  return strands.map((s, i) => (i === k ? { ...s, height_m: s.height_m + RAISED } : s));
};

const switched = (strands: readonly Strand[]): readonly Strand[] => {
  const k = liveCount(strands) > 1 ? lowestLive(strands) : -1;
  return strands.map((s, i) => (i === k ? { ...s, switched: true } : s));
};

/** The lowest live strand taken off where it is not the only one. */
export const lowestOff = (strands: readonly Strand[]): readonly Strand[] => {
  const k = liveCount(strands) > 1 ? lowestLive(strands) : -1;
  return strands.map((s, i) => (i === k ? { ...s, duty: 'cold' } : s));
};

/** The second lowest live strand made cold: neither the one in the grass nor the one at the nose. */
const fewer = (strands: readonly Strand[]): readonly Strand[] => {
  const live = strands.flatMap((s, i) => (s.duty === 'live' ? [i] : []));
  return live.length < 2
    ? strands
    : strands.map((s, i) => (i === live[1] ? { ...s, duty: 'cold' } : s));
};

const coated = (strands: readonly Strand[]): readonly Strand[] =>
  strands.map((s) => (s.duty === 'live' ? { ...s, wire: COATED } : s));

function switchPatch({ ids, wired }: Network): PatchStep[] {
  return ids.flatMap((id) => {
    const { strands } = wired[id]!.line;
    const k = liveCount(strands) > 1 ? lowestLive(strands) : -1;
    if (k < 0 || strands[k]!.switched) return [];
    return [{ op: 'add', path: `/lines/${id}/strands/${k}/switched`, value: true }];
  });
}

/** Longest tie that is thought of, m. */
const TIE = 120;

/** The nearest place of another line that stands better, and is not the same joint. */
function tieFor(net: Network, now: Score) {
  const from = now.worst;
  const own = net.wired[from.line]!;
  const p = pointAt(own.line.vertices, from.at_m);
  let best: { name: string; d: number; line: string; at_m: number } | null = null;
  for (const id of net.ids) {
    if (id === from.line) continue;
    const { line } = net.wired[id]!;
    if (!line.strands.some((s) => s.duty === 'live' && carries(s, now.season))) continue;
    const { s, off } = nearest(line.vertices, p);
    if (off > 5 && off <= TIE && (!best || off < best.d)) best = { name: id, d: off, line: id, at_m: s }; // prettier-ignore
  }
  return best && { name: best.name, link: { from: { line: from.line, at_m: from.at_m }, to: { line: best.line, at_m: best.at_m }, length_m: best.d, like: from.line } }; // prettier-ignore
}
