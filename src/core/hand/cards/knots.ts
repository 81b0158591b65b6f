/** Terminations: round a post, a reel insulator, a tube over the wire (handbook of the trade, ties: common practice). */
import { arc, winding, type Vec } from '../curve.js';
import type { HandCard, Step, View } from '../card.js';
import { along, CARE, T, wire } from './parts.js';

const TURNS = 5;
/** Middle of a turn from the middle of what it is wound on. */
const ON = T + 0.15;

interface Round {
  /** Radius of what the wire goes round, and how often it goes round that. */
  readonly radius: number;
  readonly rounds: number;
  /** Where the tail crosses the standing wire, from the middle of the post. */
  readonly crossing: number;
}

/** The wire of a termination: along the fence, round, under itself, through its loop, and close turns. */
function tied({ radius, rounds, crossing }: Round) {
  const a = radius + T / 2 + 0.1;
  const open = Math.acos(a / crossing);
  // The tangent points: in front (y below 0) where it comes, behind where it leaves.
  const [x, y]: Vec[] = [[1, 0, 0], [0, 1, 0]]; // prettier-ignore
  const turn = 2 * Math.PI * (rounds - 1);
  const round = arc([0, 0, 0], x!, y!, a, -open, -(2 * Math.PI - open) - turn).map(
    // Each round lies below the one before.
    (p, k, all): Vec => [p[0], p[1], -(rounds - 1) * (T + 0.3) * (k / (all.length - 1)) - 1.4 * (k / (all.length - 1))],
  );
  const z = round.at(-1)![2];
  const c = crossing;
  const leg = z - 0.6;
  const slope = Math.tan(Math.PI / 2 - open);
  const knot: Vec[] = [
    [c - 12, 12 * slope + 0.5, leg],
    [c - 3, 3.6, -3],
    [c + 1.5, -0.6, -3.6],
    [c + 1, -4.6, -1],
    [c - 4, -5.2, 3.2],
    [c - 10, -2.4, 4.6],
    [c - 14, 0.4, 1.2],
    [c - 13, 1.4, leg - 2.6],
    [c - 6, 3.2, leg - 5.4],
    [c + 3, 4.4, leg - 4.4],
  ];
  const from = c + 9;
  const wound = winding([from, 0, 0], [from + TURNS * (T + 0.25), 0, 0], ON, TURNS, -Math.PI * 0.7);
  const end = from + TURNS * (T + 0.25);
  const crank: Vec[] = [
    [end + 1, 4.2, 1.2],
    [end + 2, 10, 6],
    [end + 4, 45, 14],
    [end + 8, 62, 15],
    [end + 45, 66, 16],
  ];
  const w = wire([...[260, 180, 120, 80, 60, 45, 35, 25, 15, 8].map((x): Vec => [c + x, 0, 0]), [c + 1, -0.6, 0.2], ...round, ...knot, ...wound, ...crank]); // prettier-ignore
  const s = (p: Vec, after = 0) => along(w.curve, p, after);
  const rounded = s(round.at(-1)!, s(round[0]!) + 5);
  const crossed = s(knot[3]!, rounded);
  const through = s(knot[7]!, crossed);
  const first = s(wound[0]!, through);
  const last = s(wound.at(-1)!, first + 2 * TURNS * Math.PI * ON * 0.8);
  return { w, from, end, met: s(round[0]!), rounded, crossed, through, first, last };
} // prettier-ignore

const VIEW: View = { round: 12, up: 38 };

function knotCard(
  id: string,
  name: string,
  use: string,
  of: Round,
  solids: HandCard['solids'],
  more: { steps?: readonly string[]; inspect?: readonly string[]; wrong?: readonly string[]; tube?: number } = {},
): HandCard {
  const t = tied(of);
  // The knot, with the edge of what it is tied to: whoever looks knows where he is.
  const [near, far] = [0.85 * of.radius, of.crossing + 38];
  const close = { at: [(near + far) / 2, 0, 0] as Vec, reach: (far - near) / 2 };
  const whole = { at: [of.crossing * 0.45, 0, 0] as Vec, reach: of.crossing * 0.9 + 40 };
  const steps: Step[] = [
    { words: more.steps?.[0] ?? 'Round, and leave a tail of 400 to 500 mm.', upTo: { wire: t.rounded }, moves: 'wire', look: whole },
    { words: 'Under the standing wire.', upTo: { wire: t.crossed }, moves: 'wire', look: close },
    { words: 'Up, over it and back down through its own loop.', upTo: { wire: t.through }, moves: 'wire', look: close, view: { round: 20, up: 50 } },
    {
      words: 'Pull it snug before anything kinks: the first kink belongs where the tail crosses the standing wire.',
      upTo: { wire: t.first },
      moves: 'wire',
      look: { ...close, reach: close.reach + 6 },
      arrows: [[[of.crossing + 14, 12, -6], [of.crossing + 36, 21, -8]]],
    },
    {
      words: `Bend a crank of about 100 mm and wind ${TURNS} close turns, pulling outward along the crank.`,
      upTo: { wire: t.last + 105 },
      moves: 'wire',
      look: { at: [of.crossing + 26, 22, 4], reach: 62 },
      arrows: [arc([t.end + 3, 0, 4], [0, 1, 0], [0, 0, 1], 56, 1.1, -0.6)],
    },
    { words: 'Turn the crank back on itself until the tail breaks: clean, no sharp end.', upTo: { wire: t.last }, look: close },
  ];
  return {
    id,
    name,
    use,
    wires: { wire: more.tube ? { ...t.w, sheath: { from: t.met - 14, to: t.rounded + 14, thick: more.tube } } : t.w },
    solids,
    view: VIEW,
    look: whole,
    steps,
    turns: [{ wire: 'wire', about: [[t.from - 5, 0, 0], [t.end + 5, 0, 0]], between: [t.first, t.last], said: TURNS }],
    inspect: ['It cannot slide by hand.', 'Turns close, 4 to 6 of them.', 'One kink alone, at the crossing.', 'No tail that scratches.', ...(more.inspect ?? [])],
    wrong: ['A kink beside the crossing: the knot stops there and is weak.', 'Turns wide apart: it creeps under load.', ...(more.wrong ?? [])],
    care: [CARE.eyes, CARE.spring, CARE.offcut],
  };
} // prettier-ignore

export const knots: readonly HandCard[] = [
  knotCard('knot-post', 'End knot at a post', 'A strand that is not live, tied off round its post.', { radius: 40, rounds: 1, crossing: 82 }, {
    post: { from: [0, 0, -150], to: [0, 0, 150], radius: 40, of: 'timber' },
  }, { wrong: ['Never a live wire on bare timber or steel.'] }),
  knotCard('knot-reel', 'End knot at a reel insulator', 'A live strand at an end with a reel on its bolt or wire.', { radius: 9, rounds: 2, crossing: 40 }, {
    lower: { from: [0, 0, -15], to: [0, 0, -8], radius: 17, of: 'porcelain' },
    neck: { from: [0, 0, -8], to: [0, 0, 5], radius: 9, of: 'porcelain' },
    upper: { from: [0, 0, 5], to: [0, 0, 12], radius: 17, of: 'porcelain' },
    bolt: { from: [0, 0, -60], to: [0, 0, 60], radius: 4, of: 'steel' },
  }, {
    steps: ['Two turns round the neck of the reel: one can jump off and short on the bolt. Leave a tail of 400 to 500 mm.'],
    inspect: ['The reel is whole: a chipped rim is fine, cracked through is not.'],
  }),
  knotCard('knot-tube', 'End knot with a tube', 'A live strand round its post, in a tube of insulation.', { radius: 46, rounds: 1, crossing: 92 }, {
    post: { from: [0, 0, -150], to: [0, 0, 150], radius: 40, of: 'timber' },
  }, {
    steps: ['Push the tube over the wire; round the post so that the tube lies on all of it. Leave a tail of 400 to 500 mm.'],
    inspect: ['Tube, and no bare wire, wherever it touches the post.'],
    wrong: ['The tube slipped to one side: it leaks when it rains.'],
    tube: 8,
  }),
]; // prettier-ignore
