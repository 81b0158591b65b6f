/** Heights of the ground: a square grid or a flat plane, in local metres. */
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

/** Height at a point, bilinear between the four grid values; NaN outside or beside a gap. */
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
  // Asked for every metre of every line: no closure, no list.
  const { z_m, cols } = ground;
  const k = j * cols + i;
  return (
    (1 - v) * ((1 - u) * (z_m[k] ?? NaN) + u * (z_m[k + 1] ?? NaN)) +
    v * ((1 - u) * (z_m[k + cols] ?? NaN) + u * (z_m[k + cols + 1] ?? NaN))
  );
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
