/** Posts for the tape and the stakes: a set-out table as CSV, and the drawing as DXF. */
import { Colors, DxfWriter, LWPolylineFlags, point3d, Units } from '@tarikjabiri/dxf';
import Papa from 'papaparse';
import { recordOf, type Catalogue } from '../core/plan/catalogue.js';
import type { Plan } from '../core/plan/schema.js';
import { runOf } from '../core/posts/layout.js';
import type { Report } from '../core/report/schema.js';
import { plainCell } from './csv.js';

/**
 * One row a post: line, number, what it is, tape from the run's start and from the line's, east, north
 * in the property's projection, height, depth in the ground, pull at it.
 */
export function setOutCsv(plan: Plan, report: Report, cat: Catalogue): string {
  const rows = Object.values(report.lines).flatMap((line) =>
    line.posts.map((post, i) => {
      const run = runOf(line, post.s_m);
      const kind = recordOf(cat.posts, post.kind);
      return [
        plainCell(line.name),
        i + 1,
        post.role,
        kind.name,
        run ? run.index + 1 : '',
        run ? (post.tape_m - run.tape_m).toFixed(2) : '',
        post.tape_m.toFixed(2),
        (plan.origin.x + post.e).toFixed(3),
        (plan.origin.y + post.n).toFixed(3),
        post.z_m.toFixed(3),
        kind.embedment_m.toFixed(2),
        Math.max(0, post.uplift_N).toFixed(0),
        post.holds_N.toFixed(0),
      ];
    }),
  );
  return Papa.unparse(
    {
      fields: [
        'line',
        'post',
        'role',
        'kind',
        'run',
        'tape_from_run_start_m',
        'tape_from_line_start_m',
        'east_m',
        'north_m',
        'height_m',
        'depth_m',
        'uplift_N',
        'pull_out_N',
      ],
      data: rows,
    },
    { newline: '\r\n' },
  );
}

/** The plan as a drawing: lines, posts by role, things; east and north of the property's projection. */
export function toDxf(plan: Plan, report: Report): string {
  const dxf = new DxfWriter();
  dxf.setUnits(Units.Meters);
  const { x, y } = plan.origin;
  const layer = (name: string, color: number) => {
    if (!dxf.layer(name)) dxf.addLayer(name, color, 'Continuous');
    return { layerName: name };
  };
  const path = (
    points: readonly { e: number; n: number }[],
    name: string,
    color: number,
    closed = false,
  ) =>
    dxf.addLWPolyline(
      points.map((p) => ({ point: { x: x + p.e, y: y + p.n } })),
      { ...layer(name, color), flags: closed ? LWPolylineFlags.Closed : LWPolylineFlags.None },
    );
  const label = (p: { e: number; n: number }, text: string, name: string, color: number) =>
    dxf.addText(point3d(x + p.e, y + p.n, 0), 2, text.replace(/[\r\n]/g, ' '), layer(name, color));
  for (const line of Object.values(plan.lines)) {
    path(line.vertices, 'FENCE', Colors.Red);
    label(line.vertices[0]!, line.name, 'FENCE-NAMES', Colors.Red);
  }
  for (const line of Object.values(report.lines)) {
    for (const p of line.posts)
      dxf.addPoint(x + p.e, y + p.n, p.z_m, layer(`POST-${p.role.toUpperCase()}`, Colors.White));
  }
  for (const thing of Object.values(plan.things ?? {})) {
    const name = `LAND-${thing.kind.toUpperCase()}`;
    const closed = ['property', 'building', 'obstacle', 'soil'].includes(thing.kind);
    if (thing.points.length > 1) path(thing.points, name, Colors.Green, closed);
    label(thing.points[0]!, thing.name, name, Colors.Green);
  }
  for (const e of Object.values(plan.energisers)) label(e, e.name, 'ENERGISER', Colors.Blue);
  return dxf.stringify();
}
