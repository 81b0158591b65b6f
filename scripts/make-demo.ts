/**
 * Makes the demo property "Hollin Scar": everything in it is invented. Writes the ground as an
 * ASCII grid, one walked track with receiver noise, and the plan file, all in open formats.
 * Run: node scripts/ts.mjs scripts/make-demo.ts
 */
import { writeFileSync } from 'node:fs';
import {
  deflections,
  defaultKind,
  nearest,
  planLength,
  pointAt,
} from '../src/core/plan/geometry.js';
import type {
  Energiser,
  Gate,
  Grid,
  Line,
  Plan,
  Point,
  Strand,
  Paddock,
  Thing,
} from '../src/core/plan/schema.js';
import { evaluate } from '../src/core/evaluate.js';
import { catalogue } from '../src/core/plan/shipped.js';
import { groundOf } from '../src/core/terrain/ground.js';
import { converter, originAt } from '../src/formats/projection.js';
import { parsePlan } from '../src/formats/planFile.js';

// Open sea, on purpose: no real farm lies here.
const origin = originAt([-30, 48]);
const CELL = 5;
const [COLS, ROWS] = [221, 171];
const [EAST0, NORTH0] = [-50, -40];

const bump = (d: number, width: number) => Math.exp(-((d / width) ** 2));

/** Burn along the south, ridge along the north, a terrace, two gullies, and rough ground. */
function height(e: number, n: number): number {
  const burn = 30 + 14 * Math.sin(e / 140);
  const rise = 60 / (1 + Math.exp(-(n - 360) / 105));
  const terrace = 3.5 * bump(n - 230, 45) * (1 + 0.3 * Math.sin(e / 90));
  const bed = -5 * bump(n - burn, 26);
  const gullyA = -6.5 * bump(e - (250 + 40 * Math.sin(n / 110)), 16) * bump(n - 440, 190);
  const gullyB = -7.5 * bump(e - (690 - 0.12 * n), 19) * bump(n - 420, 210);
  const rough =
    0.5 * Math.sin(e / 17 + 0.6 * Math.sin(n / 23)) * Math.sin(n / 19) +
    0.22 * Math.sin(e / 7.3 + n / 11) +
    0.8 * Math.sin(e / 71 + n / 53);
  return 182 + rise + terrace + bed + gullyA + gullyB + rough;
}

const z_m: number[] = [];
for (let j = 0; j < ROWS; j++) {
  for (let i = 0; i < COLS; i++) {
    z_m.push(Math.round(height(EAST0 + i * CELL, NORTH0 + j * CELL) * 100) / 100);
  }
}
const grid: Grid = { east0_m: EAST0, north0_m: NORTH0, cell_m: CELL, cols: COLS, rows: ROWS, z_m };

const make = (heights: number[], part: Partial<Strand> = {}): Strand[] =>
  heights.map((mm) => ({
    height_m: mm / 1000,
    duty: 'live',
    wire: 'ht25',
    insulated: true,
    ...part,
  }));
const SHEEP = make([150, 300, 450, 650, 900]);
const CALVES = make([400, 650, 950]);
const BOUNDARY = make([130, 280, 430, 580, 730, 900, 1100]);

const lines: Plan['lines'] = {};

function add(id: string, name: string, points: Point[], rest: Partial<Line>): Line {
  const turns = deflections(points);
  const line: Line = {
    id,
    name,
    vertices: points.map((p, i) => ({
      id: `${id}v${i + 1}`,
      e: Math.round(p.e * 100) / 100,
      n: Math.round(p.n * 100) / 100,
      kind: defaultKind(turns[i]!, 15, i === 0 || i === points.length - 1),
    })),
    left: [],
    right: [],
    keepOut: [],
    boundary: false,
    strands: SHEEP,
    post: 'steel-180',
    maxBay_m: null,
    school: 'moderate',
    tensioner: false,
    ...rest,
  };
  // Lists of their own: they are written into below.
  line.left = [...line.left];
  line.right = [...line.right];
  lines[id] = line;
  return line;
}
const at = (e: number, n: number): Point => ({ e, n });
/** The nearest point of a line that stands already, so that ends meet. */
const on = (line: Line, e: number, n: number): Point => nearest(line.vertices, at(e, n)).point;
const ewes = ['sheep'];
const cows = ['cattle-calves'];
const out = { boundary: true, strands: SHEEP, tensioner: true };

const burn = add(
  'burn',
  'Burn side',
  [at(40, 84), at(212, 72), at(420, 96), at(640, 78), at(960, 96)],
  {
    ...out,
    left: ewes,
    keepOut: ['fox'],
    strands: BOUNDARY,
    maxBay_m: 5.5,
  },
);
const east = add('east', 'East march', [at(960, 96), at(976, 400), at(940, 690)], {
  ...out,
  left: cows,
  strands: make([350, 600, 850, 1100]),
  maxBay_m: 8,
});
const ridge = add('ridge', 'Ridge dyke', [at(940, 690), at(600, 722), at(300, 700), at(60, 660)], {
  ...out,
  left: ewes,
});
const west = add('west', 'Old march', [at(60, 660), at(30, 380), at(40, 84)], {
  left: cows,
  boundary: true,
  tensioner: true,
  strands: [
    ...make([350, 550]),
    ...make([650], { duty: 'cold', wire: 'barbed', insulated: false, kept: true }),
    ...make([850]),
    ...make([1150], { duty: 'cold', wire: 'barbed', insulated: false, kept: true }),
  ],
});
const BOTH = make([150, 300, 450, 600, 775, 950]);
const laneW = add('lane-w', 'Lane, west side', [on(burn, 420, 96), at(416, 300), at(431, 522)], {
  strands: BOTH,
  left: ewes,
  right: cows,
  tensioner: true,
});
const laneE = add('lane-e', 'Lane, east side', [on(burn, 434, 95), at(430, 300), at(445, 522)], {
  left: cows,
  right: cows,
  strands: CALVES,
  tensioner: true,
});
const midW = add('mid-w', 'Middle west', [on(west, 31, 360), at(220, 338), on(laneW, 416, 300)], {
  left: ewes,
  right: ewes,
});
const midE = add('mid-e', 'Middle east', [on(laneE, 430, 300), at(700, 352), on(east, 976, 390)], {
  strands: BOTH,
  left: cows,
  right: ewes,
  tensioner: true,
});
const topW = add('top-w', 'Top west', [on(west, 46, 530), on(laneW, 430, 508)], {
  left: ewes,
  right: ewes,
});
const topE = add('top-e', 'Top east', [on(laneE, 444, 508), at(690, 528), on(east, 958, 545)], {
  left: ewes,
  right: cows,
  strands: CALVES,
});
add('terrace', 'Terrace', [on(midW, 220, 338), on(burn, 212, 72)], {
  left: ewes,
  right: ewes,
  tensioner: true,
});
add('gully', 'Gully fence', [on(midE, 700, 352), at(672, 210), on(burn, 640, 78)], {
  left: ewes,
  right: ewes,
});
add('hut', 'Hut side', [on(topE, 690, 528), on(ridge, 670, 715)], {
  strands: BOTH,
  left: ewes,
  right: cows,
  tensioner: true,
});
add('ewe', 'Ewe field', [on(topW, 240, 519), on(ridge, 300, 700)], {
  left: ewes,
  right: ewes,
  school: 'firm',
});
add('pony', 'Pony ring', [at(782, 592), at(880, 586), at(884, 652), at(786, 660), at(782, 592)], {
  left: ['horses'],
  right: cows,
  strands: [...make([400, 700, 1030]), ...make([1350], { wire: 'rope' })],
  maxBay_m: 5,
  // Long enough for a top at 1350 mm.
  post: 'timber-240',
  tensioner: true,
});
add('hay', 'Hay split', [on(midE, 570, 326), on(burn, 556, 86)], {
  strands: BOTH,
  left: cows,
  right: ewes,
  tensioner: true,
});
// It stops most of a metre short of the dyke: a gap left in on purpose.
add('brow', 'Brow fence', [on(topE, 585, 519), at(560.4, 718.2)], {
  left: ewes,
  right: ewes,
  tensioner: true,
});
add('bield', 'Bield fence', [on(topW, 160, 523), on(midW, 130, 349)], {
  left: ewes,
  right: ewes,
  tensioner: true,
});
add(
  'yard',
  'Steading yard',
  [on(laneE, 432, 112), at(512, 114), at(510, 158), on(laneE, 433, 156)],
  { left: cows, right: cows, strands: CALVES, post: 'timber-180', tensioner: true, maxBay_m: 7 },
);
// Whoever tied the corners of the yard left jumpers out: its top strand is dead between them, the middle one is fed
// from one end alone.
const tied = (
  a: 'before' | 'after',
  i: number,
  b: 'before' | 'after',
  k: number,
): NonNullable<Line['joins']>[number]['ties'][number] => ({
  a: { side: a, strand: i },
  b: { side: b, strand: k },
  kind: 'hand',
});
const corner = (k: number) => {
  const at = lines['yard']!.vertices.slice(0, k + 1);
  return planLength({ vertices: at });
};
lines['yard']!.joins = [
  {
    at_m: corner(1),
    ties: [
      tied('before', 0, 'before', 1),
      tied('before', 1, 'before', 2),
      tied('before', 0, 'after', 0),
      tied('before', 1, 'after', 1),
    ],
  },
  {
    at_m: corner(2),
    ties: [
      tied('before', 0, 'after', 0),
      tied('after', 0, 'after', 1),
      tied('after', 1, 'after', 2),
    ],
  },
];
add('lane-head', 'Lane head', [at(431, 522), at(445, 522)], {
  left: ewes,
  right: ewes,
  tensioner: true,
});
// Designs of the property; the gully fence has left its own, on purpose.
const designs: NonNullable<Plan['designs']> = {
  ewes: { id: 'ewes', name: 'Ewes, five live', strands: SHEEP },
  both: { id: 'both', name: 'Ewes and cows, six live', strands: BOTH },
};
for (const line of Object.values(lines)) {
  if (line.strands === SHEEP) line.design = 'ewes';
  if (line.strands === BOTH) line.design = 'both';
}
lines['gully']!.strands = make([150, 300, 470, 670, 900]);
// One vertex that the builder ran the wire round, left in on purpose.
lines['gully']!.vertices[1]!.kind = 'bend';
lines['mid-w']!.vertices[1]!.e += 6;
lines['mid-w']!.vertices[1]!.n += 60;
lines['mid-w']!.vertices[1]!.kind = 'bend';
lines['terrace']!.vertices[0] = {
  ...lines['terrace']!.vertices[0]!,
  e: lines['mid-w']!.vertices[1]!.e,
  n: lines['mid-w']!.vertices[1]!.n,
};

// Ends set by hand: steel at the yard, where a trailer may hit a post; an N on the ridge, where snow lies and the ground
// freezes; a brace wire that somebody ran the wrong way, left in on purpose.
lines['yard']!.ends = [0, corner(1), corner(2), planLength(lines['yard']!)].map((at_m) => ({
  at_m,
  post: 'end-tube-260',
}));
// Strung firm up a steep bank: two bays.
lines['ewe']!.ends = [{ at_m: 0, after: { kind: 'double-h' } }];
lines['ridge']!.ends = [{ at_m: 0, after: { kind: 'n' } }];
lines['hay']!.ends = [{ at_m: 0, after: { kind: 'h', wire: 'brace' } }];

const gates: Plan['gates'] = {};
const gate = (
  id: string,
  name: string,
  line: Line,
  e: number,
  n: number,
  width_m: number,
  cable = true,
) => {
  const g: Gate = {
    id,
    name,
    line: line.id,
    at_m: Math.round(nearest(line.vertices, at(e, n)).s * 10) / 10,
    width_m,
    cable,
  };
  gates[id] = g;
};
gate('g1', 'Ford gate', burn, 520, 88, 3.6);
gate('g2', 'Lane gate', midE, 470, 308, 4.2);
gate('g3', 'Ewe gate', topW, 400, 510, 3.6, false);
gate('g4', 'Top gate', topE, 480, 511, 4.2);
gate('g5', 'Path gate', east, 969, 250, 1.2);

gate('g6', 'Terrace gate', lines['terrace']!, 216, 250, 3.6);
gate('g7', 'Brow gate', lines['brow']!, 575, 600, 3.6);
gate('g8', 'Hut gate', lines['hut']!, 682, 600, 3.6);
gate('g9', 'Scar gate', lines['ewe']!, 262, 580, 3.6);
gate('g10', 'Bield gate', lines['bield']!, 148, 450, 3.6);
gate('g11', 'Pony gate', lines['pony']!, 784, 630, 3.6);
gate('g12', 'Hay gate', lines['hay']!, 564, 200, 4.2);
gate('g13', 'Lane head gate', lines['lane-head']!, 438, 522, 4.2);

const energisers: Plan['energisers'] = {};
const unit = (id: string, name: string, line: Line, place: Point, rest: Partial<Energiser>) => {
  const hit = nearest(line.vertices, place);
  energisers[id] = {
    id,
    name,
    model: 'm2',
    e: place.e,
    n: place.n,
    line: line.id,
    at_m: Math.round(hit.s * 10) / 10,
    rods: 3,
    rodLength_m: 2,
    rodDiameter_m: 0.016,
    rodSpacing_m: 3,
    ...rest,
  };
};
unit('steading', 'Steading unit', laneE, at(448, 150), { model: 'm35', rods: 4 });
unit('far-hut', 'Far hut unit', lines['pony']!, at(800, 604), { model: 's05', rodSpacing_m: 1.2 });

// The bield fence met the middle fence before that was bent: it still does.
lines['bield']!.vertices[1] = {
  ...lines['bield']!.vertices[1]!,
  ...on(lines['mid-w']!, 130, 360),
};

const things: NonNullable<Plan['things']> = {};
const thing = (
  id: string,
  kind: Thing['kind'],
  name: string,
  points: Point[],
  rest: Partial<Thing> = {},
) => {
  things[id] = { id, name, kind, points, ...rest };
};
thing('rim', 'property', 'Hollin Scar', [
  at(24, 56), at(424, 62), at(640, 50), at(985, 70), at(1002, 402), at(950, 712), at(600, 742), at(298, 718), at(40, 676), at(14, 380),
]); // prettier-ignore
thing('burn', 'burn', 'Hollin Burn', [at(10, 48), at(220, 44), at(420, 66), at(640, 44), at(1010, 62)], { width_m: 4 }); // prettier-ignore
thing(
  'sike',
  'burn',
  'Gully sike',
  [at(772, 566), at(762, 430), at(748, 300), at(734, 180), at(726, 54)],
  { width_m: 1.2 },
); // prettier-ignore
thing('path', 'publicWay', 'Scar path', [at(1010, 252), at(969, 250), at(820, 262), at(700, 240), at(575, 205)], { width_m: 1.5 }); // prettier-ignore
thing('power', 'overhead', '11 kV line', [at(846, 760), at(985, 560), at(1040, 480)], { volts_kV: 11, height_m: 6.8 }); // prettier-ignore
thing('barn', 'building', 'Steading', [at(468, 166), at(498, 168), at(496, 188), at(466, 186)], { earthed: true }); // prettier-ignore
thing('mains', 'mains', 'Supply in the barn', [at(470, 176)]);
thing('old', 'oldFence', 'Old netting', [at(226, 612), at(272, 618), at(336, 606)], { barbed: false }); // prettier-ignore
thing('crag', 'obstacle', 'Crag', [at(604, 600), at(622, 596), at(628, 618), at(608, 622)]); // prettier-ignore
thing('ash', 'tree', 'Old ash', [at(214, 180)], { width_m: 11 });
thing('scree', 'soil', 'Scree', [at(470, 600), at(720, 590), at(760, 712), at(480, 716)], { soil: 'stony' }); // prettier-ignore
const trough = (id: string, name: string, p: Point) => thing(id, 'water', name, [p]);
trough('w1', 'Terrace trough', on(lines['terrace']!, 216, 220));
trough('w2', 'Lane trough', on(laneW, 420, 240));
trough('w3', 'Hay trough', on(lines['hay']!, 563, 210));
trough('w4', 'Top trough', on(topE, 640, 524));
trough('w5', 'Bield trough', on(lines['bield']!, 145, 430));
trough('w6', 'Ewe trough', on(lines['ewe']!, 268, 600));
trough('w7', 'Pony trough', at(832, 620));
trough('w8', 'East trough', on(midE, 840, 370));

const paddocks: NonNullable<Plan['paddocks']> = {};
const paddock = (
  id: string,
  name: string,
  e: number,
  n: number,
  stock: Paddock['stock'] = {},
  use: Paddock['use'] = 'grazing',
) => {
  paddocks[id] = { id, name, e, n, stock, use };
};
paddock('p1', 'Low terrace', 120, 200, { sheep: 60 });
paddock('p2', 'Burn bank', 320, 200, { sheep: 60 });
paddock('p3', 'Lane', 424, 250, {}, 'lane');
paddock('p4', 'Hay field', 500, 250, {}, 'hay');
paddock('p5', 'Fold', 612, 200, { sheep: 40 });
paddock('p6', 'Low east', 820, 180, { sheep: 80 });
paddock('p7', 'Bield west', 80, 430, { sheep: 30 });
paddock('p8', 'Bield east', 300, 440, { sheep: 50 });
paddock('p9', 'Middle', 700, 440, { 'cattle-calves': 35 });
paddock('p10', 'Scar west', 150, 600, { sheep: 40 });
paddock('p11', 'Scar', 430, 610, { sheep: 40 });
paddock('p12', 'Brow', 630, 650, { sheep: 20 });
paddock('p13', 'East top', 730, 620, { 'cattle-calves': 20 });
paddock('p14', 'Pony field', 830, 640, { horses: 2 });

const plan: Plan = {
  format: 'anabatic-plan',
  version: 2,
  name: 'Hollin Scar',
  invented: true,
  units: 'metric',
  currency: 'GBP',
  origin,
  ground: { kind: 'grid', id: 'hollin-scar' },
  grids: { 'hollin-scar': grid },
  soil: 'clay',
  climate: { cold_C: -12, today_C: 12, hot_C: 32 },
  lines,
  designs,
  gates,
  energisers,
  things,
  paddocks,
  sizing: { resistance: 'planning', reserve: 0.25 },
  newLines: { left: ewes, right: ewes, keepOut: [], boundary: false },
  overrides: {},
  // Four to build it, one of them trained on the driver.
  build: {
    crew: {
      lead: { id: 'lead', name: 'Lead hand', runs: ['hire.driver'] },
      second: { id: 'second', name: 'Second hand' },
      neighbour: { id: 'neighbour', name: 'Neighbour' },
      student: { id: 'student', name: 'Student' },
    },
  },
};
// The lines learn what the paddocks beside them hold; the east march is left out on purpose.
const { paddocks: faces } = evaluate(plan, groundOf(plan, plan.grids!), catalogue);
for (const face of faces) {
  for (const edge of face.edges) {
    const line = plan.lines[edge.line]!;
    if (line.id === 'east') continue;
    const side = line[edge.side as 'left' | 'right'];
    for (const kind of Object.keys(face.stock)) if (!side.includes(kind)) side.push(kind);
  }
}
const text = JSON.stringify(plan);
parsePlan(text);
writeFileSync('demo/hollin-scar.plan.json', `${text}\n`);

const rows: string[] = [];
for (let j = ROWS - 1; j >= 0; j--) rows.push(z_m.slice(j * COLS, (j + 1) * COLS).join(' '));
writeFileSync(
  'demo/hollin-scar.asc',
  `ncols ${COLS}\nnrows ${ROWS}\nxllcenter ${EAST0}\nyllcenter ${NORTH0}\ncellsize ${CELL}\nNODATA_value -9999\n${rows.join('\n')}\n`,
);

// A walk along a new line, with the wander of a hand-held receiver; a fixed sequence, so that the
// file comes out the same each time.
let seed = 20260401;
const random = () => ((seed = (seed * 1103515245 + 12345) % 2147483648) / 2147483648) * 2 - 1;
const walk = [on(lines['gully']!, 672, 210), at(800, 235), at(870, 215), on(east, 967, 230)];
const { toLonLat } = converter(origin);
const points: string[] = [];
for (let s = 0; s <= 300; s += 4) {
  const p = pointAt(walk, s);
  const [lon, lat] = toLonLat({ e: p.e + 0.6 * random(), n: p.n + 0.6 * random() });
  points.push(`<trkpt lat="${lat.toFixed(7)}" lon="${lon.toFixed(7)}"></trkpt>`);
}
writeFileSync(
  'demo/new-cross-fence.gpx',
  `<?xml version="1.0" encoding="UTF-8"?>\n<gpx version="1.1" creator="Anabatic demo, invented" xmlns="http://www.topografix.com/GPX/1/1">\n<trk><name>New cross fence</name><trkseg>\n${points.join('\n')}\n</trkseg></trk>\n</gpx>\n`,
);
