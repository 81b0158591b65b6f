/** Heights of the ground: triangles over a square grid, or a flat plane, in local metres. */
import type { Grid, Plan, Point } from '../plan/schema.js';

/** Ground as the rest of the heart sees it: flat, or the grid that the plan names. */
export type Ground =
  { readonly kind: 'flat'; readonly z_m: number } | ({ readonly kind: 'grid' } & Grid);

/**
 * The ground of a plan.
 * @param grids grids by id, from the plan file or the store
 * @throws RangeError when the plan names a grid that is not there
 */
export function groundOf(
  plan: Pick<Plan, 'ground'>,
  grids: Readonly<Record<string, Grid>>,
): Ground {
  if (plan.ground.kind === 'flat') return plan.ground;
  const grid = grids[plan.ground.id];
  if (!grid)
    throw new RangeError(`the plan names the ground grid "${plan.ground.id}", which is missing`);
  return gridGround(grid);
}

const wrapped = new WeakMap<Grid, Ground>();
/** One wrapper for each grid, so that identity still says "the same ground". */
function gridGround(grid: Grid): Ground {
  let ground = wrapped.get(grid);
  if (!ground) wrapped.set(grid, (ground = { kind: 'grid', ...grid }));
  return ground;
}

/**
 * Height at a point; NaN outside or where a corner that counts is not known. Each cell of the grid is two
 * triangles, cut along the diagonal whose ends differ less in height, so that the ground between two
 * crossings of cells is straight and a line over it is met exactly (`breaksOf`).
 */
export function heightAt(ground: Ground, p: Point): number {
  if (ground.kind === 'flat') return ground.z_m;
  const x = (p.e - ground.east0_m) / ground.cell_m;
  const y = (p.n - ground.north0_m) / ground.cell_m;
  // A hair of tolerance, so that a line drawn on the rim is not outside by rounding.
  if (!(x >= -1e-9 && y >= -1e-9 && x <= ground.cols - 1 + 1e-9 && y <= ground.rows - 1 + 1e-9)) {
    return NaN;
  }
  const i = Math.min(ground.cols - 2, Math.max(0, Math.floor(x)));
  const j = Math.min(ground.rows - 2, Math.max(0, Math.floor(y)));
  const u = x - i;
  const v = y - j;
  // Asked for every sample of every line: no closure, no list.
  const { z_m, cols } = ground;
  const k = j * cols + i;
  const sw = z_m[k] ?? NaN;
  const se = z_m[k + 1] ?? NaN;
  const nw = z_m[k + cols] ?? NaN;
  const ne = z_m[k + cols + 1] ?? NaN;
  if (rises(sw, se, nw, ne))
    return u >= v ? sw + u * (se - sw) + v * (ne - se) : sw + v * (nw - sw) + u * (ne - nw);
  return u + v <= 1
    ? sw + u * (se - sw) + v * (nw - sw)
    : ne + (1 - u) * (nw - ne) + (1 - v) * (se - ne);
}

/** Whether a cell is cut from south-west to north-east; a corner that is not known is cut off. */
const rises = (sw: number, se: number, nw: number, ne: number): boolean =>
  Number.isNaN(se - nw) || Math.abs(sw - ne) <= Math.abs(se - nw);

/**
 * Where the way from `a` to `b` passes from one triangle of the ground into the next, as shares of the way,
 * rising, strictly between 0 and 1. Between two of them the ground is straight.
 */
export function breaksOf(ground: Ground, a: Point, b: Point): number[] {
  if (ground.kind === 'flat') return [];
  const at = (p: Point): [number, number] => [
    (p.e - ground.east0_m) / ground.cell_m,
    (p.n - ground.north0_m) / ground.cell_m,
  ];
  const [[x, y], [x2, y2]] = [at(a), at(b)];
  const [dx, dy] = [x2 - x, y2 - y];
  const cuts = [0, 1];
  crossings(x, dx, ground.cols, cuts);
  crossings(y, dy, ground.rows, cuts);
  cuts.sort((p, q) => p - q);
  const { z_m, cols, rows } = ground;
  const out: number[] = [];
  for (let c = 0; c + 1 < cuts.length; c++) {
    const [from, to] = [cuts[c]!, cuts[c + 1]!];
    if (from > 0 && from - (out.at(-1) ?? 0) > HAIR) out.push(from);
    const middle = (from + to) / 2;
    const [i, j] = [Math.floor(x + middle * dx), Math.floor(y + middle * dy)];
    if (i < 0 || j < 0 || i >= cols - 1 || j >= rows - 1) continue;
    const k = j * cols + i;
    const up = rises(z_m[k]!, z_m[k + 1]!, z_m[k + cols]!, z_m[k + cols + 1]!);
    // u - v = 0 along one diagonal, u + v = 1 along the other.
    const rate = up ? dx - dy : dx + dy;
    if (rate === 0) continue;
    const t = (up ? y - j - (x - i) : 1 - (x - i) - (y - j)) / rate;
    if (t > from + HAIR && t < to - HAIR) out.push(t);
  }
  return out.filter((t) => t < 1 - HAIR);
}
/** Breaks closer than this share of the way are one. */
const HAIR = 1e-9;

/** Shares of a way at which one coordinate passes whole numbers within the grid. */
function crossings(from: number, by: number, count: number, out: number[]): void {
  if (by === 0) return;
  const [low, high] = by > 0 ? [from, from + by] : [from + by, from];
  const last = Math.min(count - 1, Math.floor(high));
  for (let m = Math.max(0, Math.ceil(low)); m <= last; m++) {
    const t = (m - from) / by;
    if (t > 0 && t < 1) out.push(t);
  }
}

/** West, south, east and north rim of a grid, m. */
export function extent(grid: Grid): [number, number, number, number] {
  return [
    grid.east0_m,
    grid.north0_m,
    grid.east0_m + (grid.cols - 1) * grid.cell_m,
    grid.north0_m + (grid.rows - 1) * grid.cell_m,
  ];
}
