/** Where the figures of Supplies come from. */
import { say, type Units } from '../../core/base/units.js';
import type { Supply } from '../../core/report/schema.js';
import type { Origin, OriginInput } from '../../ui/parts/Num.js';

export { PROPERTY } from '../../core/report/uses.js';

const INPUTS: readonly (readonly [RegExp, readonly OriginInput[]])[] = [
  [
    /^wire\./,
    [
      { name: 'Wire beyond a knot', path: 'joints.knot.tail_m', quantity: 'tape' },
      { name: 'Beyond sleeves', path: 'joints.sleeves3.tail_m', quantity: 'tape' },
      { name: 'Dead tail of cattle fences', path: 'defaults.end.deadTail.value', quantity: 'tape' },
      { name: 'Legs of a brace wire, and one more', path: 'defaults.ends.legs.value' },
      { name: 'Coil left for repairs', path: 'defaults.supplies.repairCoil.value', quantity: 'tape' }, // prettier-ignore
      { name: 'Spare', path: 'defaults.supplies.spareWire.value', quantity: 'percent' },
    ],
  ],
  [/^staple$/, [{ name: 'For each insulator on timber', path: 'defaults.supplies.staplesPerPost.value' }]], // prettier-ignore
  [/^sign$/, [{ name: 'A sign each', path: 'defaults.supplies.signEvery.value', quantity: 'length' }]], // prettier-ignore
  [/^cable$/, [{ name: 'Beyond the opening', path: 'defaults.gate.cableExtra.value', quantity: 'tape' }]], // prettier-ignore
  [/^tool\.(eyes|gloves)$/, [{ name: 'People', path: 'defaults.supplies.crew.value' }]],
  [/^hire\.driver$/, [{ name: 'Posts driven in a day', path: 'defaults.supplies.drivenADay.value' }]], // prettier-ignore
  [/^hire\.auger$/, [{ name: 'Holes bored in a day', path: 'defaults.supplies.boredADay.value' }]],
];

/** Parts of what is used, said: "along the runs 1 234 m + brace wires 56 m". */
export const usesWords = (s: Supply, units: Units): string =>
  Object.entries(s.uses ?? {})
    .map(
      ([use, n]) =>
        `${use} ${s.unit === 'coil' || s.unit === 'm' ? say(n, 'length', units) : say(Math.ceil(n - 1e-9), 'count', units)}`,
    ) // prettier-ignore
    .join(' + ');

export function countOrigin(s: Supply, units: Units): Origin {
  return {
    kind: 'formula',
    title: `${s.name}: counted on the plan`,
    formula: usesWords(s, units) || s.note || 'one for each place where the plan has it',
    source: 'docs/model.md, Supplies',
    inputs: INPUTS.find(([of]) => of.test(s.id))?.[1] ?? [],
  };
}

export const PAID: Origin = {
  kind: 'formula',
  title: 'Paid over the years',
  formula: 'first cost x times built + years x (upkeep x an hour of work)',
  source:
    'In money of today, without interest. Lives and hours are from memory and practice: put your own in',
  inputs: [
    { name: 'An hour of work', path: 'defaults.supplies.wage.value', quantity: 'money' },
    { name: 'A tight fence lasts, years', path: 'defaults.supplies.fenceLife.value' },
  ],
};

export const HOURS: Origin = {
  kind: 'formula',
  title: 'Hours to build it',
  formula:
    'ends by kind and setting + posts + wire run out + insulators + ties and tensioners + gates',
  source: 'docs/model.md, Supplies; a first estimate, to compare designs by',
  inputs: [
    { name: 'A driven timber post, h', path: 'defaults.supplies.timberPostHours.value' },
    { name: 'A light steel post, h', path: 'defaults.supplies.lightPostHours.value' },
    { name: 'A kilometre of strand, h', path: 'defaults.supplies.wireHours.value' },
    { name: 'An insulator, min', path: 'defaults.supplies.insulatorMinutes.value' },
    { name: 'A leaf of a gate, h', path: 'defaults.supplies.gateHours.value' },
  ],
};

export const BOUND: Origin = {
  kind: 'formula',
  title: 'No cutting costs less',
  formula: 'cheapest reels with enough wire, and the joins that cannot be avoided',
  source: 'docs/model.md, Supplies: the bound is proved, not guessed',
  inputs: [
    { name: 'Minutes of a join', path: 'defaults.supplies.joinMinutes.value' },
    { name: 'An hour of work', path: 'defaults.supplies.wage.value', quantity: 'money' },
    { name: 'Shortest piece joined in', path: 'defaults.supplies.leastPiece.value', quantity: 'length' }, // prettier-ignore
    { name: 'Clear of ends and tensioners', path: 'defaults.supplies.joinClear.value', quantity: 'length' }, // prettier-ignore
    { name: 'Clear of a post, share of its bay', path: 'defaults.supplies.joinInBay.value', quantity: 'percent' }, // prettier-ignore
    { name: 'Spare', path: 'defaults.supplies.spareWire.value', quantity: 'percent' },
  ],
};
