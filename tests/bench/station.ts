/** A generated station: 14 separate blocks of 16 paddocks, 504 km of fence, 20,000 posts, 5 strands. */
import { addLine } from '../../src/core/edit/edits.js';
import type { Grid, Plan } from '../../src/core/plan/schema.js';
import { energiser, plan, strands } from '../unit/scene.js';

const SIDE = 900;
const ACROSS = 4;

/** Rolling ground under the whole station, 50 m cells. */
export function stationGround(): Grid {
  const [cols, rows] = [320, 320];
  return {
    east0_m: -300,
    north0_m: -300,
    cell_m: 50,
    cols,
    rows,
    z_m: Array.from({ length: cols * rows }, (_, k) => {
      const [x, y] = [(k % cols) * 50, Math.floor(k / cols) * 50];
      return 200 + 25 * Math.sin(x / 900) * Math.cos(y / 700) + 6 * Math.sin(x / 210 + y / 330);
    }),
  };
}

/** The station's plan. Each block is one network with one energiser; blocks lie 60 m apart. */
export function station(): Plan {
  const p = plan([], { ground: { kind: 'grid', id: 'ground' }, name: 'Generated station' });
  p.newLines.left = ['cattle-quiet'];
  p.newLines.right = ['cattle-quiet'];
  p.paddocks = {};
  const rows = strands([0.35, 0.5, 0.65, 0.85, 1.1]);
  for (let block = 0; block < 14; block++) {
    const [e0, n0] = [block % 4, Math.floor(block / 4)].map((k) => k! * (ACROSS * SIDE + 60)) as [
      number,
      number,
    ];
    const at = (i: number, j: number) => ({ e: e0 + i * SIDE, n: n0 + j * SIDE });
    const put = (a: { e: number; n: number }, b: { e: number; n: number }) => {
      // A vertex every 90 m or so, a little off the straight, as walked lines are.
      const points = Array.from({ length: 11 }, (_, k) => ({
        e: a.e + ((b.e - a.e) * k) / 10 + (k % 10 === 0 ? 0 : Math.sin(k * 7 + block)),
        n: a.n + ((b.n - a.n) * k) / 10 + (k % 10 === 0 ? 0 : Math.cos(k * 5 + block)),
      }));
      // By itself: what it faces is not asked of four hundred others.
      const one = { ...p, lines: {} as Plan['lines'] };
      const made = one.lines[addLine(one, points)]!;
      const id = `l${Object.keys(p.lines).length + 1}`;
      p.lines[id] = {
        ...made,
        id,
        strands: rows.map((s) => ({ ...s })),
        maxBay_m: 25,
        boundary: false,
      };
      return id;
    };
    const ids: string[] = [];
    for (let i = 0; i <= ACROSS; i++) {
      for (let j = 0; j < ACROSS; j++)
        ids.push(put(at(i, j), at(i, j + 1)), put(at(j, i), at(j + 1, i)));
    }
    const unit = `u${block}`;
    const middle = p.lines[ids[20]!]!.vertices[5]!;
    p.energisers[unit] = energiser(ids[20]!, SIDE / 2, {
      id: unit,
      name: unit,
      model: 'm35',
      e: middle.e,
      n: middle.n,
    });
    for (let k = 0; k < ACROSS * ACROSS; k++) {
      const c = at((k % ACROSS) + 0.5, Math.floor(k / ACROSS) + 0.5);
      p.paddocks[`p${block}-${k}`] = {
        id: `p${block}-${k}`,
        name: `Block ${block + 1} paddock ${k + 1}`,
        ...c,
        stock: { 'cattle-quiet': 80 },
        use: 'grazing',
      };
    }
  }
  return p;
}
