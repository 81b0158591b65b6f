/**
 * Makes the demo property "Hollin Scar": everything in it is invented. Writes the ground as an
 * ASCII grid, one walked track with receiver noise, and the plan file, all in open formats.
 * Run: node scripts/ts.mjs scripts/make-demo.ts
 */
import { writeFileSync } from 'node:fs';
import { deflections, defaultKind, nearest, pointAt } from '../src/core/plan/geometry.js';
import type { Energiser, Gate, Grid, Line, Plan, Point, Strand } from '../src/core/plan/schema.js';
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
  },
);
const east = add('east', 'East march', [at(960, 96), at(976, 400), at(940, 690)], {
  ...out,
  left: cows,
  strands: make([350, 600, 850, 1100]),
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
    ...make([650], { duty: 'cold', wire: 'barbed', insulated: false }),
    ...make([850]),
    ...make([1150], { duty: 'cold', wire: 'barbed', insulated: false }),
  ],
});
const laneW = add('lane-w', 'Lane, west side', [on(burn, 420, 96), at(416, 300), at(431, 522)], {
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
  strands: make([450, 700, 1000, 1350]),
  post: 'timber-180',
  tensioner: true,
});
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

const plan: Plan = {
  format: 'anabatic-plan',
  version: 1,
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
  gates,
  energisers,
  sizing: { resistance: 'planning', reserve: 0.25 },
  newLines: { left: ewes, right: ewes, keepOut: [], boundary: false },
  overrides: {
    'seasons.wet.leakage_S_per_km': {
      value: 1.2e-4,
      note: 'Invented: growth is cut under the lowest strand twice a summer.',
    },
  },
};
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
