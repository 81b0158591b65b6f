import { useSession } from '../../session/session.js';
import { LineList } from '../shell/LineList.js';

/** The lines, each with how many strands it has. */
export function StrandsSide() {
  const lines = useSession((s) => s.plan.lines);
  return <LineList note={(id) => `${lines[id]!.strands.length} strands`} />;
}
