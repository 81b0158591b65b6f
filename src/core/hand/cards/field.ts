/**
 * Ways of the field: brace, gate, rod, jenny, release, woven wire (handbook, ends, gates, earth, safety: common practice).
 * Wire of these is drawn thicker than it is, to be seen at all.
 */
import { arc, winding, type Vec } from '../curve.js';
import type { HandCard, Solid } from '../card.js';
import { along, box, CARE, T, wire } from './parts.js';

const SEEN = 16;
const post = (x: number, radius: number, top = 1200, foot = -300): Solid => ({ from: [x, 0, foot], to: [x, 0, top], radius, of: 'timber' }); // prettier-ignore
const soil = (from: number, to: number): Solid =>
  box([(from + to) / 2, 0, -170], [to - from, 260, 340], 'soil');
const line = (a: Vec, b: Vec, n = 12): Vec[] => Array.from({ length: n + 1 }, (_, k): Vec => [a[0] + ((b[0] - a[0]) * k) / n, a[1] + ((b[1] - a[1]) * k) / n, a[2] + ((b[2] - a[2]) * k) / n]); // prettier-ignore

function brace(): HandCard {
  const [R, r] = [85, 60];
  const far = 2400;
  const [low, high] = [120, 1040];
  const g = SEEN / 2 + 2;
  // Twice round: up in front, round the top of the brace post, down behind, round the foot of the end post.
  const round = (k: number): Vec[] => {
    const off = k * (SEEN + 4);
    const foot = arc([0, 0, low + off], [0, 1, 0], [-1, 0, 0], R + g, 0, Math.PI);
    const top = arc([far, 0, high + off], [0, -1, 0], [1, 0, 0], r + g, 0, Math.PI);
    return [...foot, ...line([60, -R - g, low + off + 24], [far - 60, -r - g, high + off - 22], 16), ...top, ...line([far - 60, r + g, high + off - 14], [60, R + g, low + off + SEEN + 26], 16)];
  };
  const w = wire([...round(0), ...round(1)].slice(0, -3), SEEN, 8);
  const half = along(w.curve, [0, R + g, low + SEEN + 4], 4000);
  const look = { at: [1150, 0, 480] as Vec, reach: 1650 };
  const solids: Record<string, Solid> = {
    ground: soil(-500, 2900),
    end: post(0, R),
    brace: post(far, r),
    rail: { from: [R, 0, 820], to: [far - r, 0, 820], radius: 52, of: 'timber' },
    pin1: { from: [-40, 0, 820], to: [R + 90, 0, 820], radius: 9, of: 'steel' },
    pin2: { from: [far - r - 60, 0, 820], to: [far + 170, 0, 820], radius: 9, of: 'steel' },
  };
  const twist = arc([1200, 0, 600], [0, 1, 0], [0, 0, 1], 120, 0, 4.6);
  return {
    id: 'brace',
    name: 'H-brace with its wire',
    use: 'What holds an end: the rail is pushed, the wire pulls the foot of the end post.',
    wires: { wire: w, pull: wire(line([R + 20, -40, 1080], [3100, -40, 1080]), SEEN, 8) },
    solids,
    view: { round: -14, up: 12 },
    look,
    steps: [
      { words: 'End post and brace post stand and hold: the rail is 2 to 2.5 times as long as the fence is high.', upTo: { wire: 0, pull: 0 }, solids: ['ground', 'end', 'brace'], look },
      { words: 'Rail level, two-thirds up: pin 125 mm into the end post, through the brace post with half of it left out.', upTo: { wire: 0, pull: 0 }, look },
      { words: 'Brace wire from the foot of the end post, on the side where the fence pulls, to the top of the brace post and back.', upTo: { wire: half, pull: 0 }, moves: 'wire', look },
      { words: 'Once more round: two full wraps. Tie the ends; half-driven staples hold it from sliding.', upTo: { pull: 0 }, moves: 'wire', look },
      { words: 'Twist the wraps together with a bar until they ring; let the bar rest against the rail.', upTo: { pull: 0 }, look, arrows: [twist] },
      { words: 'Then the fence may pull.', look, arrows: [[[2500, -40, 1190], [3000, -40, 1190]]] },
    ],
    turns: [],
    touch: [['wire', 'end'], ['wire', 'brace'], ['wire', 'rail'], ['wire', 'pin1'], ['wire', 'pin2'], ['pull', 'brace'], ['pull', 'end'], ['wire', 'ground']],
    inspect: ['From the foot of the end post to the top of the brace post.', 'Rail level, pins through.', 'No turn slack; nothing slides.'],
    wrong: ['The other way: it does nothing.', 'Rail too low or too short: the end post lifts.'],
    care: [CARE.eyes, 'Heavy posts: two people or a loader.', 'The bar springs back: hold it, stand aside.'],
  };
} // prettier-ignore

function gate(): HandCard {
  const bar = (from: Vec, to: Vec): Solid => ({ from, to, radius: 22, of: 'steel' });
  const pin = (z: number, up: boolean): Record<string, Solid> => ({
    [`arm${z}`]: { from: [0, -30, z], to: [150, -30, z], radius: 13, of: 'steel' },
    [`pin${z}`]: { from: [150, -30, z + (up ? -16 : 16)], to: [150, -30, z + (up ? 90 : -90)], radius: 11, of: 'steel' },
  });
  const frame = { f1: bar([150, -30, 180], [150, -30, 1080]), f2: bar([1700, -30, 180], [1700, -30, 1080]), f3: bar([150, -30, 180], [1700, -30, 180]), f4: bar([150, -30, 1080], [1700, -30, 1080]), f5: bar([150, -30, 630], [1700, -30, 630]) };
  const solids: Record<string, Solid> = { ground: soil(-400, 2300), hang: post(0, 85, 1350), shut: post(1860, 75, 1350), ...pin(330, true), ...pin(930, false), ...frame, latch: { from: [1700, -30, 800], to: [1830, -30, 800], radius: 12, of: 'steel' } };
  const posts = ['ground', 'hang', 'shut'];
  const lower = [...posts, 'arm330', 'pin330'];
  const look = { at: [930, 0, 520] as Vec, reach: 1350 };
  const top = { at: [80, -30, 930] as Vec, reach: 330 };
  return {
    id: 'gate',
    name: 'Hanging a gate',
    use: 'Level, free of the ground, and nothing lifts it off.',
    wires: { string: wire(line([0, -120, 330], [1860, -120, 330]), 8, 10) },
    solids,
    view: { round: -8, up: 10 },
    look,
    steps: [
      { words: 'A string level from post to post at the height of the lower hinge.', moves: 'string', solids: posts, look },
      { words: 'Drill a pilot slightly under the pin; drive the lower pin in, its end up.', upTo: { string: 0 }, solids: lower, look: { at: [80, -30, 330], reach: 330 }, arrows: [[[420, -30, 330], [190, -30, 330]]] },
      { words: 'Set the gate on it, level, with its gap under it; mark the upper hinge.', upTo: { string: 0 }, solids: [...lower, ...Object.keys(frame)], look },
      { words: 'The upper pin with its end turned down: nothing lifts the gate off.', upTo: { string: 0 }, solids: [...lower, 'arm930', 'pin930', ...Object.keys(frame)], look: top, arrows: [[[150, -30, 1060], [150, -30, 850]]] },
      { words: 'Latch where no cow’s tongue and no child works it wrongly. Swing it to both sides.', upTo: { string: 0 }, look },
    ],
    turns: [],
    touch: [['string', 'hang'], ['string', 'shut'], ['string', 'ground']],
    inspect: ['It swings free over its whole way and stays where it is left.', 'The top pin points down.', 'Gaps too small for lambs and kids.'],
    wrong: ['Both pins up: a head under the gate lifts it off.', 'The opening measured without hinges and latch.'],
    care: [CARE.eyes, 'Two people: a gate that tips breaks fingers.'],
  };
} // prettier-ignore

function rod(): HandCard {
  const R = 8;
  const turns = winding([0, 0, 96], [0, 0, 96 + 2 * (T + 0.5)], R + T / 2 + 0.15, 2, 0);
  const lead = wire([...line([-150, -14, 30], [-40, -12, 74], 8), [-18, -11.5, 88], [-4, -10.8, 94], ...turns, [8, -10.4, 104], [40, -13, 110], ...line([60, -14, 112], [160, -16, 130], 6)]);
  const s0 = along(lead.curve, turns[0]!);
  const s1 = along(lead.curve, turns.at(-1)!, s0 + 90);
  const look = { at: [0, 0, 60] as Vec, reach: 130 };
  const close = { at: [0, 0, 98] as Vec, reach: 58 };
  return {
    id: 'rod',
    name: 'Earth rod with two contacts',
    use: 'One continuous lead, twice round each rod under its clamp.',
    wires: { lead },
    solids: {
      ground: box([0, 0, -60], [320, 120, 90], 'soil'),
      rod: { from: [0, 0, -100], to: [0, 0, 150], radius: R, of: 'steel' },
      jaw: box([0, 15, 99], [26, 5, 24], 'steel'),
      cap: box([0, -15, 99], [26, 5, 24], 'steel'),
      bolt: { from: [15, -20, 99], to: [15, 20, 99], radius: 3, of: 'steel' },
    },
    view: { round: 24, up: 24 },
    look,
    steps: [
      { words: 'Drive the rod until 150 mm stand out; the next one at least a rod’s length away.', upTo: { lead: 0 }, solids: ['ground', 'rod'], look, arrows: [[[0, 0, 215], [0, 0, 165]]] },
      { words: 'Brighten it where the lead will lie.', upTo: { lead: 0 }, solids: ['ground', 'rod'], look: close, arrows: [[[-20, -12, 88], [20, -12, 112]]] },
      { words: 'The lead of the same metal twice round: two contacts, and it is not cut.', moves: 'lead', solids: ['ground', 'rod'], look: close },
      { words: 'The clamp over both turns, tight. On to the next rod with the same lead, above the grass.', look },
    ],
    turns: [{ wire: 'lead', about: [[0, 0, 80], [0, 0, 130]], between: [s0, s1], said: 2 }],
    touch: [['lead', 'rod'], ['lead', 'jaw'], ['lead', 'cap'], ['lead', 'bolt']],
    inspect: ['Nothing can be moved by hand.', 'One metal: galvanised on galvanised.', 'The lead is whole from first rod to last.'],
    wrong: ['Copper on zinc: it corrodes.', 'Rods closer than their length: they share their soil.', 'The lead in the grass, where a mower finds it.'],
    care: ['Have buried services located first.', 'At least 10 m from supply, telephone and other earths.', CARE.eyes],
  };
} // prettier-ignore

function jenny(): HandCard {
  const coil = winding([0, 0, 95], [0, 0, 215], 260, 6, Math.PI);
  const off: Vec[] = [[70, -262, 216], [200, -266, 213], [400, -268, 204], [650, -270, 186], ...line([900, -270, 160], [2300, -270, 120], 10)];
  const w = wire([...coil, ...off], 12, 6);
  const onCoil = along(w.curve, coil.at(-1)!, 9000);
  const look = { at: [200, -60, 180] as Vec, reach: 640 };
  const disc = (z: number, r: number, h: number): Solid => ({ from: [0, 0, z], to: [0, 0, z + h], radius: r, of: 'steel' });
  const arm = (a: number): Solid => ({ from: [290 * Math.cos(a), 290 * Math.sin(a), 70], to: [290 * Math.cos(a), 290 * Math.sin(a), 300], radius: 9, of: 'steel' });
  const band = (a: number): Solid => box([260 * Math.cos(a), 260 * Math.sin(a), 155], [46, 46, 150], 'mark');
  return {
    id: 'jenny',
    name: 'Running wire off a jenny',
    use: 'The coil turns, the wire does not twist.',
    wires: { wire: w },
    solids: { foot: disc(0, 180, 24), axle: { from: [0, 0, 24], to: [0, 0, 330], radius: 22, of: 'steel' }, plate: disc(58, 330, 14), a1: arm(0.8), a2: arm(2.4), a3: arm(3.9), a4: arm(5.5), band1: band(0.2), band2: band(Math.PI * 0.75) },
    view: { round: -20, up: 34 },
    look,
    steps: [
      { words: 'Jenny level behind the end post. Coil on it with its bands still on; arms out to hold it.', upTo: { wire: onCoil }, look },
      { words: 'Inner end fixed to the jenny. Only now cut the bands, standing to one side.', upTo: { wire: onCoil }, solids: ['foot', 'axle', 'plate', 'a1', 'a2', 'a3', 'a4'], look },
      { words: 'Walk the outer end to the far post; the coil turns on its own, a hand on its brake.', moves: 'wire', solids: ['foot', 'axle', 'plate', 'a1', 'a2', 'a3', 'a4'], look: { ...look, reach: 900 }, arrows: [arc([0, 0, 300], [1, 0, 0], [0, 1, 0], 190, -1.2, 1.4), [[1000, -330, 160], [1300, -330, 150]]] },
      { words: 'Brake before you stop walking: a coil that runs on throws loops, and loops become kinks.', solids: ['foot', 'axle', 'plate', 'a1', 'a2', 'a3', 'a4'], look, arrows: [[[-330, -330, 240], [-240, -240, 90]]] },
    ],
    turns: [{ wire: 'wire', about: [[0, 0, 0], [0, 0, 300]], between: [0, onCoil], said: 6 }],
    touch: [['wire', 'band1'], ['wire', 'band2'], ['wire', 'a1'], ['wire', 'a2'], ['wire', 'a3'], ['wire', 'a4'], ['wire', 'plate']],
    inspect: ['No loop, no kink, no twist in what lies.', 'The inner end is fixed until the coil is used up.'],
    wrong: ['Bands cut before the coil is on the jenny: it springs open.', 'Pulled off the side of a standing coil: every turn is a twist.'],
    care: ['The bands of a coil are cut on the jenny, not before; its inner end is fixed.', CARE.eyes, CARE.spring],
  };
} // prettier-ignore

function release(): HandCard {
  const [apart, drawn] = [260, 190];
  const slackTo = (x: number): Vec[] => [[x + 30, 0, 0], [x + 70, 34, 0], [0, 92, 0], [-x - 70, 34, 0], [-x - 30, 0, 0]];
  const wires = {
    wire: wire(line([-900, 0, 0], [900, 0, 0], 40), SEEN, 8),
    slack: wire([...line([-900, 0, 0], [-drawn, 0, 0]), ...slackTo(-drawn), ...line([drawn, 0, 0], [900, 0, 0])], SEEN, 6),
    left: wire([...line([-900, 0, 0], [-drawn, 0, 0]), [-drawn + 30, 0, 0], [-drawn + 80, 34, 0], [-drawn + 130, 92, 6]], SEEN, 6),
    right: wire([...line([900, 0, 0], [drawn, 0, 0]), [drawn - 30, 0, 0], [drawn - 80, 34, 0], [drawn - 130, 92, 6]], SEEN, 6),
    chain: wire(line([-apart, -62, 0], [apart, -62, 0], 20), 11, 6),
    short: wire(line([-drawn, -62, 0], [drawn, -62, 0], 16), 11, 6),
  };
  const names = Object.keys(wires);
  /** Only these are there. */
  const only = (...there: string[]) => Object.fromEntries(names.filter((n) => !there.includes(n)).map((n) => [n, 0]));
  const look = { at: [0, -20, 0] as Vec, reach: 420 };
  const grip = (x: number): Solid => box([x, -28, 0], [64, 90, 40], 'steel');
  const solids: Record<string, Solid> = {
    left: grip(-apart), right: grip(apart), near: grip(-drawn), far: grip(drawn),
    puller: box([0, -64, 0], [120, 52, 50], 'steel'),
    drum: { from: [0, -34, 0], to: [0, 34, 0], radius: 34, of: 'steel' },
    cheek: box([0, 38, 0], [120, 8, 84], 'steel'),
    lever: { from: [0, -44, 0], to: [120, -44, 130], radius: 10, of: 'steel' },
  };
  const pulled = ['near', 'far', 'puller'];
  return {
    id: 'release',
    name: 'Taking the tension off a tight wire',
    use: 'Before a strand is cut, joined anew or its tensioner changed.',
    wires,
    solids,
    view: { round: 0, up: 52 },
    look,
    steps: [
      { words: 'Is there a tensioner in it? Let that out, notch by notch, with its handle: then it is done.', upTo: only('wire'), solids: ['drum', 'cheek', 'lever'], look, view: { round: 0, up: 24 }, arrows: [arc([0, -44, 0], [1, 0, 0], [0, 0, 1], 190, 0.9, 2.2)] },
      { words: 'If there is none: a grip on both sides of the spot, an arm’s length apart.', upTo: only('wire'), solids: ['left', 'right'], look },
      { words: 'The puller between them, its chain straight. Stand beside it, never over it.', upTo: only('wire', 'chain'), moves: 'chain', solids: ['left', 'right', 'puller'], look },
      { words: 'Draw the grips together until the wire between them is slack.', upTo: only('slack', 'short'), solids: pulled, look, arrows: [[[-400, -60, 70], [-270, -60, 70]], [[400, -60, 70], [270, -60, 70]]] },
      { words: 'Both ends held: now cut. Join or change what you came for.', upTo: only('left', 'right', 'short'), solids: pulled, look },
      { words: 'Let the puller out slowly until the wire carries again; grips off last.', upTo: only('slack', 'short'), solids: pulled, look, arrows: [[[-270, -60, 70], [-400, -60, 70]], [[270, -60, 70], [400, -60, 70]]] },
    ],
    turns: [],
    touch: names.flatMap((n) => Object.keys(solids).map((k) => [n, k] as const)),
    inspect: ['No nick where the grips sat.', 'Tension set again, by the table for the day.'],
    wrong: ['Cut tight: both ends fly.', 'A grip with worn teeth: it slides, and nicks the wire.'],
    care: [CARE.line, 'Both ends held before it is cut.', CARE.eyes, CARE.dead],
  };
} // prettier-ignore

function woven(): HandCard {
  const height = 900;
  const wires: Record<string, HandCard['wires'][string]> = {};
  const levels = [0, 130, 280, 450, 650, height];
  levels.forEach((z, k) => (wires[`line${k}`] = wire(line([-900, 0, z], [900, 0, z], 30), k === 0 || k === 5 ? 13 : 10, 8)));
  for (let k = 0; k < 7; k++) wires[`stay${k}`] = wire(line([-810 + 270 * k, -12, 0], [-810 + 270 * k, -12, height], 20), 9, 8);
  const names = Object.keys(wires);
  const look = { at: [0, 0, height / 2] as Vec, reach: 1150 };
  const first: Solid = { from: [-560, 30, -20], to: [-560, 30, height + 20], radius: 170, of: 'steel' };
  const roll: Solid = { from: [1120, 30, -20], to: [1120, 30, height + 20], radius: 170, of: 'steel' };
  const upTo = (x: number) => Object.fromEntries(names.map((n) => [n, n.startsWith('line') ? Math.max(0, x + 900) : -810 + 270 * Number(n.slice(4)) <= x ? height : 0]));
  const cuts = [2, 3, 1, 4, 0, 5];
  return {
    id: 'woven',
    name: 'Unrolling and cutting woven wire',
    use: 'Field wire in rolls: it springs back all at once where one lets it.',
    wires,
    solids: { roll, first, post: { from: [-960, 40, -250], to: [-960, 40, 1150], radius: 60, of: 'timber' }, ...Object.fromEntries(cuts.map((level, k) => [`cut${k}`, box([540, 0, levels[level]!], [26, 30, 34], 'mark')])) },
    view: { round: 10, up: 12 },
    look,
    steps: [
      { words: 'Stand the roll up at the first post; its end tied there, the close meshes low.', upTo: upTo(-740), solids: ['post', 'first'], look, arrows: [[[-400, -200, 1060], [-160, -200, 1060]]] },
      { words: 'Roll it along the line and lay it flat as you go; never pull it off a lying roll.', upTo: upTo(900), solids: ['post', 'roll'], look, arrows: [[[700, -60, 1080], [1000, -60, 1080]]] },
      { words: 'Before a cut: tie both sides down, or two people hold them. The roll wants to close.', upTo: upTo(900), solids: ['post', 'roll'], look, arrows: [[[300, -60, 1100], [300, -60, 960]], [[780, -60, 1100], [780, -60, 960]]] },
      { words: 'Cut from the middle outward, beside a stay; the top and bottom wires last.', upTo: upTo(900), solids: ['roll', 'post', ...cuts.map((_, k) => `cut${k}`)], look },
      { words: 'Bend each end back and wind it off on its neighbour; offcuts counted.', upTo: upTo(540), solids: ['post'], look },
    ],
    turns: [],
    touch: names.flatMap((n) => [...names.filter((m) => m > n).map((m) => [n, m] as const), [n, 'post'] as const, [n, 'roll'] as const, [n, 'first'] as const, ...cuts.map((_, k) => [n, `cut${k}`] as const)]),
    inspect: ['Close meshes low.', 'No loose end that scratches.', 'Every offcut in the bucket.'],
    wrong: ['Top or bottom cut first: what is left springs at once.', 'A roll let go: it closes over the hand.'],
    care: [CARE.eyes, 'Boots and long sleeves.', CARE.offcut],
  };
} // prettier-ignore

export const field: readonly HandCard[] = [brace(), gate(), rod(), jenny(), release(), woven()];
