/** Sharp turns of a line. */
import { figure, type Catalogue } from '../plan/catalogue.js';
import { deflections } from '../plan/geometry.js';
import type { Line } from '../plan/schema.js';

/** Sharp inner turns of a line: the places at which its wire could be strained off. */
export function turnsOf(line: Pick<Line, 'vertices'>, cat: Catalogue): number[] {
  const limit = figure(cat, 'posts.bendLimit');
  const turns = deflections(line.vertices);
  return line.vertices.flatMap((v, i) =>
    i > 0 && i < line.vertices.length - 1 && v.kind !== 'end' && turns[i]! > limit ? [i] : [],
  );
}
