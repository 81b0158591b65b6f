/** What the start asks, what it has been told so far, and what comes of it. */
import type { Answers } from '../../core/edit/firstPlan.js';
import type { Waypoint } from '../../core/edit/bring.js';
import { TEMPLATES } from '../../core/edit/templates.js';
import { readTyped } from '../../core/plan/typed.js';
import type { Plan, Point } from '../../core/plan/schema.js';
import { toleranceOf } from '../../core/plan/walkFit.js';
import { originAt } from '../../formats/projection.js';
import type { Said } from '../../ui/parts/imports.js';
import type { Read } from './files.js';

export interface Form {
  name: string;
  units: Plan['units'];
  currency: string;
  groundKind: 'flat' | 'file';
  groundAs: Said;
  lineKind: 'draw' | 'file' | 'typed' | 'shape';
  walkAs: Said;
  /** How near straight runs keep to the walk, m; null: as its own noise says. */
  tolerance_m: number | null;
  /** Places as the user named them; null: as the file and their names say. */
  places: Waypoint[] | null;
  legs: string;
  shape: string;
  area_m2: number;
  left: string[];
  right: string[];
  keepOut: string[];
  boundary: boolean;
  soil: string;
  supply: 'mains' | 'solar';
}

export const FRESH: Form = {
  name: '',
  units: 'metric',
  currency: 'EUR',
  groundKind: 'flat',
  groundAs: 'guess',
  lineKind: 'draw',
  walkAs: 'guess',
  tolerance_m: null,
  places: null,
  legs: '',
  shape: 'paddock',
  area_m2: TEMPLATES['paddock']!.area_m2,
  left: ['cattle-calves'],
  right: [],
  keepOut: [],
  boundary: false,
  soil: 'loam',
  supply: 'mains',
};

const METRES_PER = { metric: 1, imperial: 0.3048 } as const;

/** Turns typed legs, one a row, into points from 0, 0; or says which row is wrong. */
export function pointsOf(legs: string, units: Plan['units']): Point[] | string {
  const points: Point[] = [{ e: 0, n: 0 }];
  const rows = legs.split('\n').filter((r) => r.trim() !== '');
  for (const [i, row] of rows.entries()) {
    const p = readTyped(row, points.at(-1)!, METRES_PER[units]);
    if (typeof p === 'string') return `Row ${i + 1}: ${p}`;
    points.push(p);
  }
  return points.length < 2 ? 'Type at least one leg, such as 85 @ 112' : points;
}

/** How near straight runs keep to the walks that were read, by their own noise, m. */
export const measuredIn = (read: Read): number =>
  Math.max(0, ...(read.walked?.lines ?? []).map((l) => toleranceOf(l.points)));

/** The lines and places of these answers. */
function drawn(f: Form, read: Read, places: readonly Waypoint[]) {
  if (f.lineKind === 'shape') return { ...TEMPLATES[f.shape]!.make(f.area_m2), tolerance_m: 0 };
  if (f.lineKind === 'file')
    return {
      lines: read.walked?.lines ?? [],
      places,
      tolerance_m: f.tolerance_m ?? measuredIn(read),
    };
  const points = f.lineKind === 'typed' ? pointsOf(f.legs, f.units) : '';
  return {
    lines: typeof points === 'string' ? [] : [{ name: 'Line 1', points }],
    places: [],
    tolerance_m: 0,
  };
}

/** All that the first plan is made of, from what was told and what was read. */
export function answersOf(f: Form, read: Read, places: readonly Waypoint[]): Answers {
  const grid = f.groundKind === 'file' ? read.ground : null;
  const onGlobe = (f.lineKind === 'file' || grid) && read.origin;
  return {
    ...drawn(f, read, places),
    name: f.name.trim() || 'Not named yet',
    units: f.units,
    currency: f.currency,
    ground: grid ? { kind: 'grid', id: grid.id } : { kind: 'flat', z_m: 0 },
    origin: onGlobe || originAt([0, 0]),
    left: f.left,
    right: f.right,
    keepOut: f.keepOut,
    boundary: f.boundary,
    soil: f.soil,
    supply: f.supply,
  };
}
