/**
 * The full-size network against a general sparse LU solver (mathjs), assembled on its own here from
 * the published pi of a leaking line.
 */
import { create, all, type Matrix } from 'mathjs';
import { expect, it } from 'vitest';
import { solveUnit } from '../../src/core/power/network.js';
import { farmCircuit } from '../unit/farm.js';

const math = create(all!);

it('2,000 sections of 5 strands: the same volts as a general sparse solver within 1e-8', () => {
  const c = farmCircuit(2000, 5);
  const index = new Map<string, number>();
  const at = (place: string, strand: string) => {
    const key = `${place}|${strand}`;
    if (!index.has(key)) index.set(key, index.size);
    return index.get(key)!;
  };
  const links: [number, number, number][] = [];
  const grounds: [number, number][] = [];
  for (const s of c.sections) {
    for (const [strand, type] of Object.entries(s.strands)) {
      const t = c.strand_types[type]!;
      const [r, g] = [t.r_ohm_per_km / 1000, t.g_s_per_km / 1000];
      const x = s.length_m * Math.sqrt(r * g);
      const zc = Math.sqrt(r / g);
      const [a, b] = [at(s.from, strand), at(s.to, strand)];
      links.push([a, b, 1 / (zc * Math.sinh(x))]);
      grounds.push([a, Math.tanh(x / 2) / zc], [b, Math.tanh(x / 2) / zc]);
    }
  }
  for (const j of c.jumpers)
    links.push([at(j.location, j.strand_a), at(j.location, j.strand_b), 1 / j.r_ohm]);
  const hot = at('H', '');
  const earth = at('E', '');
  links.push([hot, at('N0', 's1'), 1 / c.energiser.lead_ohm]);
  grounds.push([earth, 1 / c.r_earth_ohm]);

  const rows = new Map<string, number>();
  const add = (i: number, j: number, v: number) =>
    rows.set(`${i},${j}`, (rows.get(`${i},${j}`) ?? 0) + v);
  for (const [a, b, g] of links) {
    add(a, a, g);
    add(b, b, g);
    add(a, b, -g);
    add(b, a, -g);
  }
  for (const [a, g] of grounds) add(a, a, g);
  const n = index.size;
  const columns: [number, number][][] = Array.from({ length: n }, () => []);
  for (const [key, v] of rows) {
    const [i, j] = key.split(',').map(Number) as [number, number];
    columns[j]!.push([i, v]);
  }
  const values: number[] = [];
  const rowIndex: number[] = [];
  const ptr = [0];
  for (const column of columns) {
    for (const [i, v] of column.sort((p, q) => p[0] - q[0])) {
      rowIndex.push(i);
      values.push(v);
    }
    ptr.push(values.length);
  }
  const A = new (math as unknown as { SparseMatrix: new (data: object) => Matrix }).SparseMatrix({
    values,
    index: rowIndex,
    ptr,
    size: [n, n],
    datatype: 'number',
  });
  const b = new Array<number>(n).fill(0);
  b[hot] = 1;
  b[earth] = -1;
  // Order 1: A + A', for symmetric matrices; threshold 0.001 keeps the diagonal as pivot.
  const x = math.lusolve(math.slu(A as never, 1, 0.001) as never, b) as unknown as Matrix;
  const volt = (k: number) => x.get([k, 0]) as unknown as number;

  const ours = solveUnit(c);
  expect(n).toBe(ours.nodes.length + 2);
  expect(Math.abs(ours.r_in_ohm / (volt(hot) - volt(earth)) - 1)).toBeLessThan(1e-8);
  let worst = 0;
  for (const node of ours.nodes) {
    const other = volt(index.get(`${node.location}|${node.strand}`)!);
    worst = Math.max(worst, Math.abs(node.v_v! / other - 1));
  }
  expect(worst).toBeLessThan(1e-8);
});
