/** In which groups supplies are listed, and in which deliveries they are wanted: ends first, wire later. */

export const GROUPS = [
  'Posts and ends',
  'Wire and joints',
  'Insulators, jumpers, cable',
  'Energisers and earth',
  'Gates and signs',
  'Tools, safety and hire',
  'Further',
] as const;
export type Group = (typeof GROUPS)[number];

const RULES: readonly (readonly [Group, RegExp])[] = [
  ['Posts and ends', /^(post|end|dropper)\.|^(concrete|gravel)$/],
  ['Wire and joints', /^(wire|reel|joiner)\.|^(tensioner|spring|staple)$/],
  ['Insulators, jumpers, cable', /^(insulator|clip|switch|sleeve|crimp)\.|^(clamp\.jumper|cable|conduit)$/], // prettier-ignore
  ['Energisers and earth', /^(energiser|earth)\.|^(diverter|battery|panel)$/],
  ['Gates and signs', /^gate(\.|$)|^(sign|floodgate)$/],
  ['Tools, safety and hire', /^(tool|hire)\./],
];

/** @param item of the price book */
export const groupOf = (item: string): Group =>
  RULES.find(([, is]) => is.test(item))?.[0] ?? 'Further';

/** Orders items by group, as the groups are listed. */
export const byGroup = (a: string, b: string): number =>
  GROUPS.indexOf(groupOf(a)) - GROUPS.indexOf(groupOf(b));

export const DELIVERIES = ['ends', 'posts', 'wire', 'power'] as const;
export type Delivery = (typeof DELIVERIES)[number];

export const DELIVERY_NAMES: Readonly<Record<Delivery, string>> = {
  ends: 'Ends, corners, gates, tools',
  posts: 'Line posts',
  wire: 'Wire and what it hangs on',
  power: 'Power, earth, signs',
};

/** When an item is wanted, in the order of the work: ends set first, then posts, wire, and what makes it live. */
export function deliveryOf(item: string): Delivery {
  if (/^post\.(end|brace)/.test(item) || /^(end|gate|tool|hire)(\.|$)/.test(item) || ['concrete', 'gravel', 'staple', 'floodgate'].includes(item)) return 'ends'; // prettier-ignore
  if (/^(post|dropper)\./.test(item)) return 'posts';
  const group = groupOf(item);
  return group === 'Energisers and earth' || item === 'sign' ? 'power' : 'wire';
}
