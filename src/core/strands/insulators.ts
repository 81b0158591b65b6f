/** What strands hang on: which insulator fits a post, a bend or an end, and how hard a bend bears on it. */
import { recordOf, type Catalogue } from '../plan/catalogue.js';
import { bearing, stations } from '../plan/geometry.js';
import type { Line, Strand } from '../plan/schema.js';
import type { Run, Strain } from '../report/schema.js';

/** What a line has at its strained ends, at its bends, and at posts of a family. */
export type Spot = 'end' | 'bend' | (string & {});

type Chosen = Pick<Line, 'insulators'>;

/** Why an insulator will not do for a strand at a spot; null: it will. */
export type Unfit = 'place' | 'post' | 'form' | 'hole' | null;

/** @param family of the post that it is fixed to; null: an end, whose tie goes round any post */
export function unfit(id: string, family: string | null, wire: string, cat: Catalogue): Unfit {
  const own = recordOf(cat.insulators, id);
  const { form, diameter_mm } = recordOf(cat.wires, wire);
  if ((own.where === 'end') !== (family === null)) return 'place';
  if (family !== null && !own.posts.includes(family)) return 'post';
  if (!own.forms.includes(form)) return 'form';
  return diameter_mm > own.hole_mm ? 'hole' : null;
}

/** The first of the catalogue that fits, bends' own kind aside; null: none does. */
export function usualInsulator(family: string | null, wire: string, cat: Catalogue): string | null {
  return (
    Object.keys(cat.insulators).find(
      (id) => id !== BEND && unfit(id, family, wire, cat) === null,
    ) ?? null
  );
}

/** The kind that takes the side pull of a bend. */
const BEND = 'bend';

/**
 * What a strand hangs on at a spot of its line: as chosen there, else what fits; at a bend what bears the pull.
 * Null where nothing of the catalogue fits.
 */
export function insulatorAt(
  line: Chosen,
  spot: Spot,
  family: string | null,
  wire: string,
  cat: Catalogue,
  bearing_N = 0,
): string | null {
  const own = line.insulators?.[spot];
  if (own !== undefined) return own;
  const usual = usualInsulator(family, wire, cat);
  if (spot !== 'bend') return usual;
  if (line.insulators?.[family ?? ''] !== undefined) return line.insulators[family!]!;
  const holds = (id: string | null) => id !== null && recordOf(cat.insulators, id).bearing_N >= bearing_N; // prettier-ignore
  return !holds(usual) && unfit(BEND, family, wire, cat) === null ? BEND : usual;
}

/** A vertex that the wire runs round. */
export interface Bend {
  readonly vertex: string;
  readonly at_m: number;
  readonly turn_deg: number;
  /** The side of the post that the wire runs on, seen along the line, so that it is pulled against the post. */
  readonly side: 'left' | 'right';
  /** Greatest side pull of one strand on the coldest night, N: 2 T sin(turn / 2). */
  readonly bearing_N: number;
}

/** Bends of a line, along it. */
export function bendsOf(
  { vertices, strands }: Pick<Line, 'vertices' | 'strands'>,
  runs: readonly Run[],
  strain: readonly Strain[],
): Bend[] {
  const at = stations(vertices);
  return vertices.slice(1, -1).flatMap((v, k): Bend[] => {
    if (v.kind !== 'bend') return [];
    const [before, after] = [vertices[k]!, vertices[k + 2]!];
    const turn = ((bearing(v, after) - bearing(before, v) + 540) % 360) - 180;
    if (Math.abs(turn) < LEAST_TURN) return [];
    const s = at[k + 1]!;
    const run = runs.findIndex((r) => s > r.from_m && s < r.to_m);
    const pull = (w: Strand) => strain.find((x) => x.run === run && x.wire === w.wire)?.cold_N ?? 0;
    const T = Math.max(0, ...strands.filter((w) => w.insulated).map(pull));
    // A turn to the right pulls to the right: on the left side of the post the wire is pulled against it.
    const side = turn > 0 ? 'left' : 'right';
    return [{ vertex: v.id, at_m: s, turn_deg: Math.abs(turn), side, bearing_N: 2 * T * Math.sin((Math.abs(turn) * Math.PI) / 360) }]; // prettier-ignore
  });
}

/** Less than this is as good as straight, degrees. */
const LEAST_TURN = 0.5;
