/** A make-up for each order of duties, from the requirement, with the reasons. */
import { recordOf, type Catalogue } from '../plan/catalogue.js';
import type { Strand } from '../plan/schema.js';
import type { Order, Proposal, Requirement } from '../report/schema.js';
import { makeUp, strandsOf } from './makeUp.js';
import { requirementOf, type Facing } from './requirement.js';
import { search, searchKey } from './search.js';

/** The plainest order that a line allows: all live, but for a top that people step over. */
export const plainestOrder = (need: Requirement): Order =>
  need.topDuty === 'cold' ? 'coldTop' : 'live';

export const ORDERS: readonly Order[] = ['live', 'turns', 'switched', 'coldTop'];

/** A proposal, or why this order is not for this line. */
export type Offer = Proposal | { readonly order: Order; readonly refused: string };

/** Offers by what decides them: a drag leaves the requirement as it was, and lines share theirs. */
const known = new WeakMap<Catalogue, Map<string, Offer>>();
const KEPT = 400;

/** The make-up of one order with the fewest strands that meet every requirement. */
export function propose(need: Requirement, order: Order, cat: Catalogue): Offer {
  let offers = known.get(cat);
  if (!offers || offers.size > KEPT) known.set(cat, (offers = new Map()));
  const key = order + searchKey(need);
  let offer = offers.get(key);
  if (!offer) offers.set(key, (offer = offerOf(need, order, cat)));
  return offer;
}

function offerOf(need: Requirement, order: Order, cat: Catalogue): Offer {
  const refused = refusal(need, order, cat);
  if (refused) return { order, refused };
  const found = search(need, order);
  if (!found) return { order, refused: 'No make-up keeps every requirement together.' };
  return {
    order,
    heights_m: [...found.heights_m],
    duties: [...found.duties],
    reasons: reasonsOf(need, found.heights_m),
  };
}

const drawnIn = new Map<string, Proposal | null>();

/**
 * The plainest order with its gaps drawn in, so that a push may open them further; null if none.
 * @param tighter_m taken up to the next centimetre, the step of the search
 */
export function tighterProposal(need: Requirement, tighter_m: number): Proposal | null {
  const order = plainestOrder(need);
  const tighter = Math.ceil(tighter_m * 100 - 1e-6) / 100;
  const key = `${tighter} ${searchKey(need)}`;
  const known = drawnIn.get(key);
  if (known !== undefined) return known;
  const found = search(need, order, tighter);
  const made = found && {
    order,
    heights_m: [...found.heights_m],
    duties: [...found.duties],
    reasons: [],
  };
  if (drawnIn.size > KEPT) drawnIn.clear();
  drawnIn.set(key, made);
  return made;
}

/** The plainest order that this line allows. */
export function proposeOne(need: Requirement, cat: Catalogue): Proposal | null {
  const offer = propose(need, plainestOrder(need), cat);
  return 'refused' in offer ? null : offer;
}

function refusal(need: Requirement, order: Order, cat: Catalogue): string | null {
  const name = (id: string | null | undefined) =>
    id ? recordOf(cat.profiles, id).name.toLowerCase() : '';
  const row = (about: string) => need.rows.find((r) => r.about === about);
  if (order === 'live' && need.topDuty === 'cold')
    return 'People step over this line: its top stays cold. See top cold.';
  if (order === 'coldTop' && need.topDuty === 'live')
    return `The top is live for ${name(row('topLive')?.profile)}, who lean on a cold one.`;
  if (order === 'switched' && need.needs.some((n) => n.lowestLive))
    return `The lowest strand stays live for ${name(row('lowestLive')?.profile)}: it cannot be switched off.`;
  return null;
}

function reasonsOf(need: Requirement, heights_m: readonly number[]): Proposal['reasons'] {
  const { decidedBy } = need;
  const value = (about: string) => need.rows.find((r) => r.about === about)!.value;
  const reasons: Proposal['reasons'] = [
    { about: 'lowest', profile: decidedBy.lowest, value: value('lowest') },
    { about: 'gap', profile: decidedBy.gap, value: value('gap') },
    { about: 'top', profile: decidedBy.top, value: heights_m.at(-1)! },
  ];
  if (heights_m.length === need.minStrands && need.minStrands > 1) {
    const strict = need.rows.find((r) => r.about === 'count');
    reasons.push({ about: 'count', profile: strict?.profile ?? null, value: need.minStrands });
  }
  const live = need.rows.find((r) => r.about === 'live');
  if (live) reasons.push({ about: 'live', profile: live.profile, value: live.value });
  return reasons;
}

/** The strands of a proposal as they would be hung on a line with these posts. */
export const hung = (
  p: Proposal,
  need: Requirement,
  old: readonly Strand[],
  post: string,
  cat: Catalogue,
): Strand[] => strandsOf(p, need.seenTop, old, recordOf(cat.posts, post).conducts, cat);

/** The make-up that a new line starts with; one usual strand while no stock is named. */
export function startingMakeUp(facing: Facing, cat: Catalogue): Strand[] {
  const need = requirementOf(facing, cat);
  const proposal = need && proposeOne(need, cat);
  if (!need || !proposal) return makeUp([0.9]);
  return strandsOf(proposal, need.seenTop, [], false, cat);
}
