/** A property in each format that it can leave in. */
import { catalogue } from '../core/plan/shipped.js';
import { ownCatalogue } from '../core/plan/ownCatalogue.js';
import { evaluate } from '../core/evaluate.js';
import type { Plan } from '../core/plan/schema.js';
import type { Report } from '../core/report/schema.js';
import { withCuts } from '../core/supplies/cutSupplies.js';
import { cutWires } from '../core/supplies/wireCuts.js';
import { groundOf } from '../core/terrain/ground.js';
import { FormatError } from '../formats/error.js';
import { toGeoJson, toGpx, toKml } from '../formats/geoFiles.js';
import { orderCsv } from '../formats/orderCsv.js';
import { setOutCsv, toDxf } from '../formats/setOut.js';
import { printPlan, type OpenedPlan } from '../formats/planFile.js';

export const FORMATS = {
  plan: { type: 'application/json', suffix: 'plan.json' },
  geojson: { type: 'application/geo+json', suffix: 'geojson' },
  gpx: { type: 'application/gpx+xml', suffix: 'gpx' },
  kml: { type: 'application/vnd.google-earth.kml+xml', suffix: 'kml' },
  setout: { type: 'text/csv', suffix: 'setout.csv' },
  dxf: { type: 'image/vnd.dxf', suffix: 'dxf' },
  order: { type: 'text/csv', suffix: 'order.csv' },
} as const;
export type ExportFormat = keyof typeof FORMATS;

/** The order list, with the coils as they are cut. */
function orderOf(plan: Plan, report: Report, only?: string): string {
  const cat = ownCatalogue(catalogue, plan);
  const supplies = withCuts(report.supplies, cutWires(plan, report, cat), cat);
  return orderCsv({ ...report, supplies }, plan, cat, only);
}

/**
 * Text, media type and file name of an export.
 * @param only order list of one line, or of what else takes supplies, by its id
 * @throws FormatError for a format that there is not
 */
export function exportAs(format: string, { plan, grids }: OpenedPlan, only?: string) {
  if (!Object.hasOwn(FORMATS, format)) {
    throw new FormatError('format', `there are ${Object.keys(FORMATS).join(', ')}`);
  }
  const known = format as ExportFormat;
  const ground = groundOf(plan, grids);
  // No mend is asked for here.
  const worked = () => evaluate(plan, ground, catalogue, { mends: 0 });
  const text = {
    plan: () => printPlan(plan, grids),
    geojson: () => toGeoJson(plan, ground),
    gpx: () => toGpx(plan, ground),
    kml: () => toKml(plan, ground),
    setout: () => setOutCsv(plan, worked(), ownCatalogue(catalogue, plan)),
    dxf: () => toDxf(plan, worked()),
    order: () => orderOf(plan, worked(), only),
  }[known]();
  const base =
    plan.name
      .normalize('NFD')
      .replace(/\p{M}/gu, '')
      .toLowerCase()
      .replace(/[^a-z0-9]+/g, '-')
      .replace(/^-|-$/g, '') || 'plan';
  return { text, type: FORMATS[known].type, file: `${base}.${FORMATS[known].suffix}` };
}
