/** Puts a reviewed walk into the plan at once. */
import { bringIn, type Brought } from '../../core/edit/bring.js';
import type { Plan } from '../../core/plan/schema.js';
import { commit } from '../../session/session.js';
import { chooseLine } from '../../session/view.js';
import { wait, type Waiting } from './waiting.js';

/** Puts the waiting lines and places into the plan in one change; says what could not be placed. */
export function takeWalk(walk: Waiting, tolerance_m: number): string {
  let brought: Brought = { lines: [], left: [] };
  const words =
    walk.lines.length === 1 && walk.places.length === 0
      ? `brought in ${walk.lines[0]!.name}`
      : `brought in ${walk.lines.length} lines from ${walk.from}`;
  commit(words.slice(0, 180), (d: Plan) => {
    if (walk.origin) d.origin = walk.origin;
    brought = bringIn(d, walk.lines, walk.places, tolerance_m);
  });
  const last = brought.lines.at(-1);
  if (last) chooseLine(last);
  wait(null);
  const came = walk.places.length - brought.left.length;
  return [
    `${walk.lines.length === 1 ? 'One line' : `${walk.lines.length} lines`} brought in`,
    came > 0 ? `, ${came} places` : '',
    brought.left.length > 0 ? `; left out: ${brought.left.slice(0, 6).join(', ')}` : '',
    '.',
  ].join('');
}
