/** Who is signed in here, what they may do, and the way out. */
import { useRecords } from '../../session/records.js';
import { useSession } from '../../session/state.js';
import { signedOut } from '../../session/leave.js';
import { useVisitor } from '../../session/visitor.js';
import { Button } from '../../ui/parts/Button.js';

export function Who() {
  const { name, role } = useVisitor();
  const waits = useSession((s) => s.book.pending.length) + useRecords((r) => r.pending.length);
  if (name === '') return role === 'reader' ? <span className="label px-1">read only</span> : null;
  return (
    <span className="label inline-flex items-center gap-1 px-1">
      <bdi>{name}</bdi>
      {role === 'reader' && <span>, read only</span>}
      <Button
        className="small"
        disabled={waits > 0}
        title={waits > 0 ? 'First what waits here must be at the server' : 'Signs out, and forgets what this browser kept of the properties'}
        onClick={() => void signedOut()}
      >
        Sign out
      </Button>
    </span>
  );
} // prettier-ignore
