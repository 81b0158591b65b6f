/** Two wires made one: figure-eight, reef and wrap, sleeves, a wedge joiner (handbook, ties and joints: common practice). */
import { arc, winding, type Vec } from '../curve.js';
import type { HandCard } from '../card.js';
import { along, box, CARE, T, wire } from './parts.js';

const ON = T + 0.15;
const PITCH = T + 0.25;

/** A straight along x with points close enough that nothing sways. */
const straight = (from: number, to: number, y: number, z: number): Vec[] => {
  const n = Math.max(2, Math.ceil(Math.abs(to - from) / 12));
  return Array.from({ length: n + 1 }, (_, k): Vec => [from + ((to - from) * k) / n, y, z]);
};
const turned = ([x, y, z]: Vec): Vec => [-x, -y, z];

/** A loop in the form of an eight, each wire passing through the other's, its tail wound on itself. */
function eight(): HandCard {
  const n = 4;
  // The left wire comes along, makes an open loop round where the right one's lies, and is wound on itself.
  const half: Vec[] = [
    ...straight(-190, -28, 0, 0),
    [-24, 0.7, 0.2],
    [-20, 2.4, 0.5],
    [-16, 4.5, 0.9],
    [-10, 6.7, 1.4],
    [-2, 8.4, 1.9],
    [8, 8.8, 2.4],
    [14.5, 5, 2.2],
    [16, 0, 0],
    [14.5, -5, -2.2],
    [8, -8.8, -2.4],
    [-2, -8.2, -1.9],
    [-12, -4.8, -2.3],
    [-22, -1.2, -3.4],
    [-27, 0.8, -3],
  ];
  const wound = winding([-31, 0, 0], [-31 - n * PITCH, 0, 0], ON, n, Math.PI * 0.9);
  const tail: Vec[] = [[-32.4 - n * PITCH, -3, -2.6], [-33.4 - n * PITCH, -9, -0.5], [-34 - n * PITCH, -40, 9]]; // prettier-ignore
  const a = wire([...half, ...wound, ...tail]);
  const b = wire([...half, ...wound, ...tail].map(turned));
  const loop = along(a.curve, [16, 0, 0]);
  const back = along(a.curve, half.at(-1)!, loop);
  const end = along(a.curve, wound.at(-1)!, back + n * 12);
  const close = { at: [0, 0, 0] as Vec, reach: 48 };
  const axis: [Vec, Vec] = [[-31, 0, 0], [-31 - n * PITCH, 0, 0]]; // prettier-ignore
  return {
    id: 'eight',
    name: 'Figure-eight join',
    use: 'Two wires joined without tools: it keeps 80 to 90 % of the wire.',
    wires: { left: a, right: b },
    solids: {},
    view: { round: 0, up: 62 },
    look: { ...close, reach: 60 },
    steps: [
      { words: 'Bend a wide loop at the end of one wire, its tail 250 mm long.', upTo: { left: back, right: 0 }, moves: 'left', look: close },
      { words: 'Bring the other wire through that loop from below, and round its two sides.', upTo: { left: back, right: loop + 14 }, moves: 'right', look: close },
      { words: 'Back out of the loop as it came in: each wire lies round the other like an eight.', upTo: { left: back, right: back }, moves: 'right', look: close },
      { words: `Wind the first tail on its own wire, ${n} close turns.`, upTo: { left: end + 34, right: back }, moves: 'left', look: { at: [-18, 0, 0], reach: 52 } },
      { words: `The other tail the same on its side, ${n} close turns.`, upTo: { left: end, right: end + 34 }, moves: 'right', look: { at: [10, 0, 0], reach: 62 } },
      { words: 'Pull both wires until the loops close on one another; break the tails off.', upTo: { left: end, right: end }, look: { ...close, reach: 60 }, arrows: [[[-46, 10, 0], [-58, 10, 0]], [[46, -10, 0], [58, -10, 0]]] },
    ],
    turns: [{ wire: 'left', about: axis, between: [along(a.curve, wound[0]!, back), end], said: n }, { wire: 'right', about: [turned(axis[0]), turned(axis[1])], between: [along(a.curve, wound[0]!, back), end], said: n }],
    inspect: ['Loops wide and alike, no kink in either.', '3 to 4 close turns on each side.', 'No tail that scratches.'],
    wrong: ['A loop drawn to a sharp bend: it breaks there.', 'Turns on one side only: it pulls out.'],
    care: [CARE.eyes, CARE.spring, CARE.offcut],
  };
} // prettier-ignore

/** A half knot with a wide crossing, then turns on either side: 4, 3 and 4, the last the other way. */
function reef(): HandCard {
  // One whole turn of each round the other, opposite one another everywhere.
  const crossing = (from: number, to: number) => winding([from, 0, 0], [to, 0, 0], 1.45, 1, Math.PI / 2);
  const first = winding([-14, 0, 0], [-14 - 4 * PITCH, 0, 0], ON, 4, Math.PI * 0.9);
  const gap = -14 - 4 * PITCH;
  const second = winding([gap - 7, 0, 0], [gap - 7 - 4 * PITCH, 0, 0], ON, -4, -Math.PI / 2);
  const stop = gap - 7 - 4 * PITCH;
  const bight: Vec[] = [[gap - 1.6, -3.8, -1.4], [gap - 2.4, -5.4, 1.6], [gap - 4, -5.6, 3], [gap - 5.6, -4.4, 1.4]];
  const a = wire([...straight(200, 60, 0, 0), ...straight(50, 16, 0, 0), ...crossing(10, -10), ...first, ...bight, ...second, [stop - 1, -4, -2.4], [stop - 2, -12, -1], [stop - 3, -40, 6]]);
  const third = winding([14, 0, 0], [14 + 3 * PITCH, 0, 0], ON, 3, Math.PI * 0.9);
  const b = wire([...straight(-200, -60, 0, 0), ...straight(-50, -16, 0, 0), ...crossing(-10, 10), ...third, [15 + 3 * PITCH, 3.4, -2.4], [16 + 3 * PITCH, 12, 0], [17 + 3 * PITCH, 40, 8]]);
  const [ca, cb] = [along(a.curve, first[0]!), along(b.curve, third[0]!)];
  const firstEnd = along(a.curve, first.at(-1)!, ca + 50);
  const secondFrom = along(a.curve, second[0]!, firstEnd);
  const secondEnd = along(a.curve, second.at(-1)!, secondFrom + 50);
  const bEnd = along(b.curve, third.at(-1)!, cb + 35);
  const close = { at: [-6, 0, 0] as Vec, reach: 46 };
  return {
    id: 'reef',
    name: 'Reef-and-wrap join',
    use: 'Two wires joined by a half knot and wrapped: 390 of 440 kgf in a trade test, 89 %.',
    wires: { one: a, other: b },
    solids: {},
    view: { round: 0, up: 55 },
    look: close,
    steps: [
      { words: 'Lay the two ends across one another, 300 mm of tail on each.', upTo: { one: ca - 26, other: cb - 26 }, moves: 'other', look: close },
      { words: 'A half knot: each tail once round the other wire. Keep that crossing wide, it breaks there first.', upTo: { one: ca, other: cb }, moves: 'one', look: close },
      { words: 'Wind the first tail on the other wire, 4 close turns.', upTo: { one: firstEnd, other: cb }, moves: 'one', look: close },
      { words: 'The other tail 3 close turns on its side; break it off.', upTo: { one: firstEnd, other: bEnd }, moves: 'other', look: close },
      { words: 'The first tail 4 more, the other way round: they cannot unwind.', upTo: { one: secondEnd + 34, other: bEnd }, moves: 'one', look: close },
      { words: 'Break it off: clean, no sharp end.', upTo: { one: secondEnd, other: bEnd }, look: close },
    ],
    turns: [
      { wire: 'one', about: [[-14, 0, 0], [gap, 0, 0]], between: [ca, firstEnd], said: 4 },
      { wire: 'one', about: [[gap - 7, 0, 0], [stop, 0, 0]], between: [secondFrom, secondEnd], said: 4 },
      { wire: 'other', about: [[14, 0, 0], [14 + 3 * PITCH, 0, 0]], between: [cb, bEnd], said: 3 },
    ],
    touch: [['one', 'other']],
    inspect: ['The crossing wide, no kink in it.', '4, 3 and 4 turns, the last ones the other way.'],
    wrong: ['The half knot pulled tight over a kink: it breaks at the first change of direction.'],
    care: [CARE.eyes, CARE.spring, CARE.offcut],
  };
} // prettier-ignore

/** Sleeves pressed over two wires side by side. */
function sleeves(): HandCard {
  const gap = T / 2 + 0.1;
  const a = wire([...straight(-160, 55, -gap, 0), [60, -gap - 1, 0], [64, -gap - 6, 0]]);
  const b = wire([...straight(160, -55, gap, 0), [-60, gap + 1, 0], [-64, gap + 6, 0]]);
  // Closer together than they stand: a hand apart they would be too small to be seen.
  const at = [-30, -10, 10, 30];
  const solids = Object.fromEntries(at.map((x, k) => [`s${k + 1}`, { from: [x - 6, 0, 0] as Vec, to: [x + 6, 0, 0] as Vec, radius: 4.4, of: 'steel' as const, hollow: true as const }]));
  const look = { at: [0, 0, 0] as Vec, reach: 74 };
  const past = along(b.curve, [-55, gap, 0]);
  const jaw = (x: number): Vec[][] => [[[x, -32, 0], [x, -7, 0]], [[x, 32, 0], [x, 7, 0]]];
  return {
    id: 'sleeves',
    name: 'Crimp sleeves',
    use: 'A splice that keeps 90 % and more: 3 to 4 sleeves, 3 where wire also bears round a post.',
    wires: { left: a, right: b },
    solids,
    view: { round: 0, up: 60 },
    look,
    steps: [
      { words: 'Push four sleeves of the right size on one wire.', upTo: { right: 0 }, moves: 'left', look },
      { words: 'Bring the other wire through all of them from its side.', upTo: { right: past + 8 }, moves: 'right', look },
      { words: 'Space them a hand apart (drawn closer), tails 20 mm out at both ends.', look },
      { words: 'Press each in its own groove of the tool, in the middle and at both ends.', look, arrows: at.flatMap(jaw) },
    ],
    turns: [],
    touch: [['left', 'right']],
    inspect: ['Three to four, each pressed fully: the gauge of the tool goes over it.', 'Tails out at both ends.'],
    wrong: ['A sleeve of the wrong size, or the wrong groove: it slides.', 'Tap crimps carry no tension.'],
    care: [CARE.eyes, CARE.spring, CARE.offcut],
  };
} // prettier-ignore

/** A wedge joiner: each wire in its channel, opposite ones; released with a key. */
function wedge(): HandCard {
  const a = wire([...straight(-200, 34, -5, 0)]);
  const b = wire([...straight(200, -34, 5, 0)]);
  const look = { at: [0, 0, 0] as Vec, reach: 92 };
  const body = box([0, 0, -5.2], [56, 24, 4], 'steel');
  const mid = box([0, 0, 0], [56, 5, 7], 'steel');
  const sides = { near: box([0, -11, 0], [56, 4, 7], 'steel'), far: box([0, 11, 0], [56, 4, 7], 'steel') };
  const key: Vec[] = [[-26, -5, 20], [-26, -5, 6], [-18, -5, 1]];
  return {
    id: 'wedge',
    name: 'Wedge joiner and its release',
    use: 'A join that can be used again: each wire is gripped harder the harder it pulls.',
    wires: { left: a, right: b },
    solids: { body, mid, ...sides },
    view: { round: -18, up: 48 },
    look,
    steps: [
      { words: 'One wire into the first channel, from its own side, until 10 mm stand out.', upTo: { right: 0 }, moves: 'left', look },
      { words: 'The other into the opposite channel, from the other side.', moves: 'right', look },
      { words: 'Pull both: the wedges bite. Pull again as hard as you can, by hand.', look, arrows: [[[-60, -5, 0], [-88, -5, 0]], [[60, 5, 0], [88, 5, 0]]] },
      { words: 'To release: take the tension off, push the key in beside the wire, draw the wire out.', look, arrows: [key, [[-40, -5, 0], [-70, -5, 0]]] },
    ],
    turns: [],
    touch: [['left', 'mid'], ['left', 'near'], ['right', 'mid'], ['right', 'far'], ['left', 'body'], ['right', 'body']],
    inspect: ['One wire in each of two opposite channels.', '10 mm of wire stand out at each end.', 'Neither slides when pulled by hand.'],
    wrong: ['Both in one channel: they slide.', 'Released under tension: it springs.'],
    care: [CARE.eyes, CARE.spring, CARE.line],
  };
} // prettier-ignore

/** Wire broken without cutters: bent to and fro at a small C. */
function breaking(): HandCard {
  const c = arc([60, 0, 14], [1, 0, 0], [0, 0, 1], 14, -Math.PI / 2, Math.PI * 0.75);
  const a = wire([...straight(-160, 50, 0, 0), ...c, [40, 0, 21], [20, 0, 26], [-50, 0, 33]]);
  const start = along(a.curve, [60, 0, 0]);
  const bent = along(a.curve, c.at(-1)!, start);
  const look = { at: [20, 0, 12] as Vec, reach: 80 };
  const swing = arc([62, 0, 14], [1, 0, 0], [0, 0, 1], 42, 2.6, 0.4);
  return {
    id: 'breaking',
    name: 'Breaking wire without cutters',
    use: 'A clean end with no tool: the wire is worked to and fro in one place.',
    wires: { wire: a },
    solids: {},
    view: { round: 0, up: 14 },
    look,
    steps: [
      { words: 'Hold the wire fast where it is to break.', upTo: { wire: start }, moves: 'wire', look },
      { words: 'Bend the end round to a small C.', upTo: { wire: bent }, moves: 'wire', look },
      { words: 'Grip the tail and work it to and fro in the plane of the C, always at the same spot.', moves: 'wire', look, arrows: [swing, [...swing].reverse()] },
      { words: 'It breaks after some ten bends. Both ends in hand; the short one goes into the bucket, and is counted.', upTo: { wire: start }, look },
    ],
    turns: [],
    inspect: ['A clean break, no sliver.', 'Offcuts in the bucket: as many as were cut.'],
    wrong: ['Bent at two spots: a kink is left in the good wire, and breaks later.', 'A short end left on the ground: it kills stock.'],
    care: [CARE.eyes, CARE.spring, CARE.offcut],
  };
} // prettier-ignore

export const joins: readonly HandCard[] = [eight(), reef(), sleeves(), wedge(), breaking()];
