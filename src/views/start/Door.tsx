/** Who may come in, at the foot of the first page. */
import { Users } from 'lucide-react';
import type { Role } from '../../formats/visitor.js';
import { signedOut } from '../../session/leave.js';
import { Button } from '../../ui/parts/Button.js';

export function Door({ name, role }: { name: string; role: Role }) {
  return (
    <section aria-label="People">
      <h2 className="heading border-ink mt-10 border-b pb-1">People</h2>
      <p className="mt-2 max-w-[70ch]">
        {name === ''
          ? 'Only this machine is let in, and nobody signs in. With people, each has a name, a pass phrase and a role, and every change says who made it.'
          : `You are ${name}, ${role}. Every change says who made it.`}
      </p>
      <div className="mt-3 flex flex-wrap gap-3">
        {role === 'owner' && (
          <a className="button" href="/people">
            <Users size={14} aria-hidden />{' '}
            {name === '' ? 'Let people sign in' : 'People and links'}
          </a>
        )}
        {name !== '' && <Button onClick={() => void signedOut()}>Sign out</Button>}
      </div>
    </section>
  );
}
