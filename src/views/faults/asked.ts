/** A place of a line that somebody chose to read. */
import { pointAt } from '../../core/plan/geometry.js';
import { useSession } from '../../session/session.js';
import { look } from '../../session/view.js';
import { useFaults } from './faults.js';

/** Chooses a place to be read; map and section point at it. */
export function placeAsked(unit: string, line: string, at_m: number): void {
  const own = useSession.getState().plan.lines[line];
  if (!own) return;
  const at = pointAt(own.vertices, at_m);
  useFaults.setState({
    asked: { key: `${line} ${at_m.toFixed(1)} asked`, kind: 'volts', unit, line, at_m, spot: null, at, proposed: true }, // prettier-ignore
  });
  look({ line, cursor: at_m, vertex: null });
}
