/** How an end is built, step by step, for somebody who has never built one. */
import { figure, recordOf, type Catalogue } from '../plan/catalogue.js';
import type { EndReport } from '../report/schema.js';

/** How quantities are said: in the property's units. */
export interface Saying {
  metres(m: number): string;
  mm(m: number): string;
  newtons(n: number): string;
}

/**
 * The steps in their order.
 * @param e as it is to be built
 * @param twist_N what each leg of its brace wire is twisted to
 */
export function stepsOf(e: EndReport, say: Saying, cat: Catalogue, twist_N: number): string[] {
  const post = recordOf(cat.posts, e.post);
  const deep = say.metres(e.depth_m);
  const where = `${say.metres(e.rail_m)} from it along the fence`;
  const set = settingSteps(e, say, cat);
  const railed = e.kind === 'h' || e.kind === 'double-h';
  // Two ends over one rail press on each other: their wires only keep the posts square.
  const about = twist_N < 1 ? '' : `, about ${say.newtons(twist_N)} a leg`;
  const lean = figure(cat, 'ends.lean');
  const first = `Set the end post (${post.name.toLowerCase()}) ${deep} deep, ${e.kind === 'post' || e.kind === 'stay' ? `leaning ${lean} degrees against the pull: it comes upright under load` : 'upright'}. ${set}`;
  const rail = say.mm(e.railHeight_m);
  const level = Math.abs(e.rise_m) > 0.03 ? ` The ground ${e.rise_m > 0 ? 'rises' : 'falls'} ${say.mm(Math.abs(e.rise_m))} to the brace post: the rail lies level, so it meets the brace post ${say.mm(e.railHeight_m - e.rise_m)} above its own ground.` : ''; // prettier-ignore
  const wait = recordOf(cat.settings, e.setting).wait_h;
  const waits = wait >= 1 ? [`Wait ${wait >= 24 ? `${Math.round(wait / 24)} days` : `${wait} hours`} before anything pulls on it.`] : []; // prettier-ignore
  if (railed) {
    const second = `Set the brace post ${where}, as deep.${level}`;
    const again = e.kind === 'double-h' ? [`Set a second brace post as far again, ${say.metres(2 * e.rail_m)} from the end post.`] : []; // prettier-ignore
    const wires = e.kind === 'double-h' ? 'In each of the two bays: ' : '';
    return [
      first,
      ...(e.second ? [second] : ['The post at the other end of the run is its brace post.']),
      ...again,
      ...waits,
      `Mark both posts ${rail} above the ground of the end post, between the two top strands. Drill for the pins: ${say.mm(0.0625)} into the end post, right through the brace post.`,
      `Drive a pin of ${say.mm(0.125)} into the end post, half of it left out; lift the rail onto it; drive a pin of ${say.mm(0.25)} through the brace post into the rail, the end left out.`,
      `${wires}Lay the brace wire round the foot of the END post, ${say.mm(figure(cat, 'ends.wireFoot'))} up, a half-driven staple on its far side; lead it up to the top of the BRACE post, round it at the rail, and back down: two full wraps, four legs.`,
      'Half-drive a staple at each turn, so that the wire cannot slide and can still draw. Join its ends with a reef knot or a sleeve.',
      `Put a stick between the legs and twist until the wire is firm${about}. When it hums and nothing gives by hand it is enough; twist on and it weakens.`,
      ...(e.wire === 'both'
        ? [`Put in the second brace wire along the other diagonal in the same way: ${e.shared ? 'the run pulls on both posts, each towards the other' : 'the gate pulls the other way than the fence'}.`]
        : []), // prettier-ignore
      'Tie the strands off at the end post, and only then tension them. Look at it after a day: twist once more if it went slack.',
    ];
  }
  if (e.kind === 'n')
    return [
      first,
      `Set the second post ${where}, as deep: the strut will press it down.`,
      ...waits,
      `Fit the strut from ${rail} up the end post down to the foot of the second post, ${say.mm(figure(cat, 'ends.wireFoot'))} above the ground, pinned at both ends.`,
      'Run the tie wire along the ground from foot to foot: two full wraps, half-driven staples.',
      `Twist until it is firm${about}, no further.`,
      'Tie the strands off at the end post and tension them.',
    ];
  if (e.kind === 'stay' || e.kind === 'concreted')
    return [
      first,
      e.second && e.foot === 'post'
        ? `Set the next post of the fence ${where}: the strut stands against its foot, and equal bays begin after it.`
        : `Set a ${e.kind === 'concreted' ? 'footing of concrete' : 'ground block'} ${where}, ${say.mm(figure(cat, 'ends.blockDepth'))} deep, its face square to the strut.`,
      ...waits,
      `Fit the strut from ${rail} up the end post, in the line of the fence, on the side that the strands pull to, ${e.kind === 'concreted' ? 'welded or clamped' : 'pinned'} at both ends.`,
      'Tie the strands off at the end post and tension them. The strut must be tight before the wire is.',
    ];
  if (e.kind === 'tie-back')
    return [
      first,
      `Dig a trench across the fence behind the end post: the guy meets the ground ${say.metres(e.rail_m)} behind it, the log lies ${say.metres(figure(cat, 'ends.logTop'))} under the surface. Cut a slot for the guy, so that it runs straight from post to log.`,
      `Loop the guy round the log and round the end post ${rail} up: two full wraps, half-driven staples.`,
      'Fill the trench in layers, each tamped hard, all of the spoil put back.',
      `Twist the guy until it is firm${about}. Mark it: it trips people and stock.`,
      'Tie the strands off at the end post and tension them.',
    ];
  return [
    `Set the post (${post.name.toLowerCase()}) ${deep} deep, leaning ${lean} degrees outwards, away from the side to which the wire pulls it. ${set}`,
    ...waits,
    'Hang the strands on the inside of the bend, where they are pulled against the post.',
  ];
}

/** How a post is set, in words. */
export function settingSteps(
  e: Pick<EndReport, 'setting' | 'depth_m' | 'post'>,
  say: Saying,
  cat: Catalogue,
): string {
  const steel = recordOf(cat.posts, e.post).conducts;
  switch (e.setting) {
    case 'driven':
      return `Drive it, checked upright with every few blows${steel ? '' : ', thin end down'}.`;
    case 'tamped':
      return 'Bore, set it on firm ground, put ALL of the spoil back in layers of a hand’s breadth, each tamped until the bar rings.';
    case 'gravel':
      return 'Bore, set it, fill with gravel in layers, each tamped; soil only for the top hand’s breadth.';
    case 'concrete':
      return `Bore, a layer of gravel below so that water gets out, place the mix in layers and rod it; ${steel ? 'slope the top away from the post' : `stop ${say.mm(figure(cat, 'ends.topBelow'))} below the surface and fill with soil`}.`;
    case 'wet':
      return `Bore to ${say.metres((e.depth_m * 2) / 3)}, stir mix into the spoil with little water, drive the post through it for the last third.`;
  }
}
