/** Strands tied to one another so that power passes: by hand, by a line clamp, by a tap crimp (handbook, jumpers). */
import { winding, type Vec } from '../curve.js';
import type { HandCard } from '../card.js';
import { along, box, CARE, T, wire } from './parts.js';

const ON = T + 0.12;
const PITCH = T + 0.25;
const APART = 110;
const TURNS = 4;
const strand = (z: number): Vec[] =>
  Array.from({ length: 23 }, (_, k): Vec => [-110 + 10 * k, 0, z]);

function hand(): HandCard {
  const long = TURNS * PITCH;
  // Below: from its tail round the lower strand toward the right; up; round the upper one toward the left.
  const lower = winding([-long / 2, 0, 0], [long / 2, 0, 0], ON, TURNS, Math.PI * 0.5);
  const upper = winding([long / 2, 0, APART], [-long / 2, 0, APART], ON, TURNS, Math.PI * 1.1);
  const j = wire([[-long / 2 - 3, -40, -12], [-long / 2 - 2, -14, -3], [-long / 2 - 0.6, -5, -0.6], ...lower, [long / 2 + 1, -4.6, 2], [long / 2 + 4, -7, 16], [long / 2 + 5, -6, 55], [long / 2 + 4, 2, APART - 18],
    [long / 2 + 1.6, 3.2, APART - 5], ...upper, [-long / 2 - 0.8, -4, APART - 3], [-long / 2 - 1.6, -12, APART - 3], [-long / 2 - 3, -40, APART + 4]]);
  const [a, b] = [along(j.curve, lower[0]!), along(j.curve, lower.at(-1)!, 80)];
  const c = along(j.curve, upper[0]!, b + 60);
  const d = along(j.curve, upper.at(-1)!, c + TURNS * 12);
  const look = { at: [0, 0, APART / 2] as Vec, reach: 96 };
  const near = (z: number) => ({ at: [0, 0, z] as Vec, reach: 40 });
  return {
    id: 'jumper-hand',
    name: 'Hand-tied jumper',
    use: 'Two live strands tied together with the fence’s own wire: free, when it cannot move.',
    wires: { lower: wire(strand(0)), upper: wire(strand(APART)), jumper: j },
    solids: {},
    view: { round: 14, up: 22 },
    look,
    steps: [
      { words: `A piece of the same wire, long enough for both ties. Wind it ${TURNS} close turns on the lower strand.`, upTo: { jumper: b }, moves: 'jumper', look: near(8) },
      { words: 'Up to the other strand, with a little slack: the strands move apart.', upTo: { jumper: c }, moves: 'jumper', look },
      { words: `Wind ${TURNS} close turns there.`, upTo: { jumper: d + 34 }, moves: 'jumper', look: near(APART - 4) },
      { words: 'Grip the tie with two pliers and turn them against one another, until it cannot slide.', upTo: { jumper: d }, look: near(APART), arrows: [[[-12, -24, APART + 14], [-12, -6, APART + 16], [-12, 14, APART + 8]], [[12, 24, APART - 14], [12, 6, APART - 16], [12, -14, APART - 8]]] },
      { words: 'The same below. Break the tails off, and try both ties by hand.', upTo: { jumper: d }, look },
    ],
    turns: [
      { wire: 'jumper', about: [[-30, 0, 0], [30, 0, 0]], between: [a, b], said: TURNS },
      { wire: 'jumper', about: [[-30, 0, APART], [30, 0, APART]], between: [c, d], said: TURNS },
    ],
    inspect: ['Neither tie can be moved by hand.', 'The same metal as the strands.', 'A little slack between them.'],
    wrong: ['Copper on zinc: it corrodes.', 'A loose tie corrodes, and becomes a resistance.'],
    care: [CARE.dead, CARE.eyes, CARE.offcut],
  };
} // prettier-ignore

/** A jumper laid beside a strand: from below, turned along it. */
const beside = (off: number): Vec[] => [[34, off - 1, -95], [32, off - 1, -55], [27, off, -24], [20, off, -8], [11, off, -1.2], [4, off, 0], [-4, off, 0], [-14, off, 0], [-26, off, 0]]; // prettier-ignore

function clamp(): HandCard {
  const j = wire(beside(-T - 0.3));
  const look = { at: [0, 0, -14] as Vec, reach: 62 };
  const solids = {
    plate: box([0, 2.6, 0], [16, 2, 18], 'steel'),
    cap: box([0, -5.4, 0], [16, 2, 18], 'steel'),
    bolt: { from: [0, -12, 6] as Vec, to: [0, 8, 6] as Vec, radius: 2.4, of: 'steel' as const },
    nut: { from: [0, -9.5, 6] as Vec, to: [0, -6.4, 6] as Vec, radius: 5, of: 'steel' as const },
  };
  return {
    id: 'jumper-clamp',
    name: 'Line clamp',
    use: 'A jumper that can be taken off again: quick, snug and not over-tight.',
    wires: { strand: wire(strand(0)), jumper: j },
    solids,
    view: { round: 24, up: 28 },
    look,
    steps: [
      { words: 'Open the clamp; its plate behind the strand.', upTo: { jumper: 0 }, solids: ['plate'], look },
      { words: 'Lay the jumper along the strand, 20 mm past the plate.', moves: 'jumper', solids: ['plate'], look },
      { words: 'The cap over both, bolt and nut on.', solids: ['plate', 'cap', 'bolt', 'nut'], look },
      { words: 'Tighten until neither wire moves: snug. Over-tight it cuts the zinc.', solids: ['plate', 'cap', 'bolt', 'nut'], look, arrows: [[[-16, -10, 14], [-6, -10, 21], [8, -10, 20], [16, -10, 12]]] },
    ],
    turns: [],
    touch: [['strand', 'jumper'], ['strand', 'plate'], ['strand', 'cap'], ['jumper', 'plate'], ['jumper', 'cap']],
    inspect: ['Neither wire moves in it.', 'Both wires lie flat, side by side.', 'The same metal.'],
    wrong: ['In a strand under tension: it carries none.', 'Over-tight: the wire is nicked and breaks there.'],
    care: [CARE.dead, CARE.eyes],
  };
} // prettier-ignore

function tap(): HandCard {
  const j = wire(beside(-T - 0.3));
  const look = { at: [0, 0, -14] as Vec, reach: 58 };
  const c = (radius: number) => ({ from: [-8, -1.4, 0] as Vec, to: [8, -1.4, 0] as Vec, radius, of: 'steel' as const, hollow: true as const });
  return {
    id: 'jumper-tap',
    name: 'Tap crimp',
    use: 'The best jumper and for good: an open sleeve pressed over strand and jumper.',
    wires: { strand: wire(strand(0)), jumper: j },
    solids: { back: box([0, 2.4, 0], [16, 1.4, 9], 'steel'), lip: box([0, -1, -4.4], [16, 6, 1.4], 'steel'), shut: c(4.6) },
    view: { round: 22, up: 26 },
    look,
    steps: [
      { words: 'Hook the open sleeve on the strand.', upTo: { jumper: 0 }, solids: ['back', 'lip'], look },
      { words: 'Lay the jumper in beside it, 15 mm past the sleeve.', moves: 'jumper', solids: ['back', 'lip'], look },
      { words: 'Press it in its own groove of the tool, all the way.', solids: ['shut'], look, arrows: [[[0, -1, 34], [0, -1, 9]], [[0, -1, -34], [0, -1, -9]]] },
      { words: 'Try it by hand: nothing moves.', solids: ['shut'], look },
    ],
    turns: [],
    touch: [['strand', 'jumper'], ['strand', 'back'], ['jumper', 'lip'], ['strand', 'lip'], ['strand', 'shut'], ['jumper', 'shut']],
    inspect: ['Pressed fully, over both wires.', 'Immovable.', 'The right size for both wires.'],
    wrong: ['In a strand under tension: it carries none.', 'Half pressed: it corrodes inside.'],
    care: [CARE.dead, CARE.eyes],
  };
} // prettier-ignore

export const jumpers: readonly HandCard[] = [hand(), clamp(), tap()];
