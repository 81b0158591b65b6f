/** Pictures of the ground below the map: hill shade, or a tint by slope. */
import { memoLast } from '../../core/base/memo.js';
import { extent } from '../../core/terrain/ground.js';
import { hillShade, slopeOf } from '../../core/terrain/relief.js';
import type { Grid } from '../../core/plan/schema.js';

/** Outer rim of the image: half a cell beyond the outermost values. */
export function rim(grid: Grid): [number, number, number, number] {
  const [west, south, east, north] = extent(grid);
  const half = grid.cell_m / 2;
  return [west - half, south - half, east + half, north + half];
}

/** Grades at which the tint steps up, and how dark each step is. */
const STEPS: readonly [grade: number, alpha: number][] = [
  [0.1, 0],
  [0.2, 40],
  [0.33, 80],
  [0.5, 120],
  [Infinity, 165],
];

/**
 * A picture of a grid as a data address: dark where it is in shade, or where it is steep. Kept for the next map of
 * the same ground.
 */
export const shadeImage = memoLast(drawShade);

function drawShade(grid: Grid, tint: 'shade' | 'slope'): string {
  const values = tint === 'shade' ? hillShade(grid) : slopeOf(grid);
  const canvas = document.createElement('canvas');
  canvas.width = grid.cols;
  canvas.height = grid.rows;
  const context = canvas.getContext('2d')!;
  const image = context.createImageData(grid.cols, grid.rows);
  for (let j = 0; j < grid.rows; j++) {
    for (let i = 0; i < grid.cols; i++) {
      const at = ((grid.rows - 1 - j) * grid.cols + i) * 4;
      const value = values[j * grid.cols + i]!;
      // Shade only where it is darker than level ground, so that the sheet stays light.
      const alpha =
        tint === 'shade'
          ? Math.min(110, Math.max(0, 180 - value) * 0.85)
          : STEPS.find(([grade]) => value < grade)![1];
      image.data.set(tint === 'shade' ? [28, 43, 51, alpha] : [120, 72, 24, alpha], at);
    }
  }
  context.putImageData(image, 0, 0);
  return canvas.toDataURL();
}
