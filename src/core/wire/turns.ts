/** Sharp turns of a line. */
import { figure, type Catalogue } from '../plan/catalogue.js';
import { deflections, stations } from '../plan/geometry.js';
import type { Line } from '../plan/schema.js';

export interface Turn {
  /** Its vertex, by its place among them. */
  readonly vertex: number;
  readonly s_m: number;
  readonly deg: number;
}

/** Sharp turns of a line, at which its wire is strained off, or could be. */
export function turnsOf(line: Pick<Line, 'vertices'>, cat: Catalogue): Turn[] {
  const limit = figure(cat, 'posts.bendLimit');
  const at = stations(line.vertices);
  const turns = deflections(line.vertices);
  return line.vertices.flatMap(({ kind }, vertex) =>
    kind !== 'end' && turns[vertex]! > limit
      ? [{ vertex, s_m: at[vertex]!, deg: turns[vertex]! }]
      : [],
  );
}

/** Sharp turns round which the wire runs on. */
export const bendsOfWire = (line: Pick<Line, 'vertices'>, cat: Catalogue): Turn[] =>
  turnsOf(line, cat).filter((t) => line.vertices[t.vertex]!.kind === 'bend');
