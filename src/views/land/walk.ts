/** Puts a reviewed walk into the plan at once. */
import { addEnergiser, addGate, addLine } from '../../core/edit/edits.js';
import { nearest } from '../../core/plan/geometry.js';
import { addThing } from '../../core/edit/landEdits.js';
import { fitWalk } from '../../core/plan/walkFit.js';
import type { Plan } from '../../core/plan/schema.js';
import type { WalkedPlace } from '../../formats/walked.js';
import { commit } from '../../session/session.js';
import { chooseLine } from '../../session/view.js';
import { wait, type Waiting } from './waiting.js';

/** A gate comes onto a line within this, m. */
const GATE_REACH = 6;

/** Puts the waiting lines and places into the plan in one change; says what could not be placed. */
export function takeWalk(walk: Waiting, tolerance_m: number): string {
  let last = '';
  let left = 0;
  const words =
    walk.lines.length === 1 && walk.places.length === 0
      ? `brought in ${walk.lines[0]!.name}`
      : `brought in ${walk.lines.length} lines from ${walk.from}`;
  commit(words.slice(0, 180), (d: Plan) => {
    for (const line of walk.lines) {
      last = addLine(d, fitWalk(line.points, tolerance_m), line.name);
      if (line.boundary) d.lines[last]!.boundary = true;
    }
    for (const place of walk.places) if (!putPlace(d, place)) left++;
  });
  if (last) chooseLine(last);
  wait(null);
  const came = walk.places.length - left;
  return [
    `${walk.lines.length === 1 ? 'One line' : `${walk.lines.length} lines`} brought in`,
    came > 0 ? `, ${came} places` : '',
    left > 0 ? `; ${left} places of unknown kind, or away from any line, were left out` : '',
    '.',
  ].join('');
}

function putPlace(d: Plan, place: WalkedPlace): boolean {
  const p = place.points[0]!;
  if (place.kind === null) return false;
  if (place.kind === 'energiser') {
    d.energisers[addEnergiser(d, p, 120)]!.name = place.name;
    return true;
  }
  if (place.kind === 'gate') {
    const on = Object.values(d.lines)
      .map((line) => ({ line, hit: nearest(line.vertices, p) }))
      .filter(({ hit }) => hit.off <= GATE_REACH)
      .sort((a, b) => a.hit.off - b.hit.off)[0];
    if (!on) return false;
    d.gates[addGate(d, on.line.id, on.hit.s, 3.6)]!.name = place.name;
    return true;
  }
  addThing(d, place.kind, p, {
    name: place.name,
    points: place.points.map(({ e, n }) => ({ e, n })),
    ...place.attributes,
  });
  return true;
}
