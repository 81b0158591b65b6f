/** Name, role and pass phrase of somebody who is to come in. */
import { useId, useState, type SyntheticEvent } from 'react';
import type { Role } from '../../formats/visitor.js';
import { Button } from '../../ui/parts/Button.js';
import { Choice } from '../../ui/parts/controls.js';
import { asked } from './asked.js';
import { MAY, ROLE_WORDS } from './words.js';

export function NewPerson({ first, changed }: { first: boolean; changed: (words: string | null) => void }) {
  const ids = { name: useId(), phrase: useId(), error: useId() };
  const [role, setRole] = useState<Role>('crew');
  const [error, setError] = useState<string | null>(null);
  const add = async (event: SyntheticEvent<HTMLFormElement>) => {
    event.preventDefault();
    const form = event.currentTarget;
    const said = new FormData(form);
    setError(null);
    try {
      await asked('/api/people', 'POST', { name: said.get('name'), phrase: said.get('phrase'), role: first ? 'owner' : role });
      form.reset();
      changed(null);
    } catch (e) {
      setError((e as Error).message);
    }
  };
  return (
    <form className="mt-3 space-y-3" onSubmit={(e) => void add(e)}>
      <div className="flex flex-wrap items-end gap-x-4 gap-y-3">
        <p>
          <label htmlFor={ids.name} className="label block">Name</label>
          <input id={ids.name} name="name" className="field w-56" autoComplete="off" required maxLength={60} />
        </p>
        <p>
          <label htmlFor={ids.phrase} className="label block">Pass phrase, 12 characters or more</label>
          <input id={ids.phrase} name="phrase" className="field w-72 max-w-full" autoComplete="off" spellCheck={false} required minLength={12} maxLength={200} />
        </p>
        <Button strong type="submit">{first ? 'Be the owner' : 'Let in'}</Button>
      </div>
      {!first && (
        <div className="flex flex-wrap items-center gap-3">
          <Choice<Role> label="Role" value={role} options={ROLE_WORDS} onChange={setRole} />
          <span className="label">{MAY[role]}</span>
        </div>
      )}
      {error && <p role="alert" className="text-stop">{error}</p>}
      <p className="label max-w-[64ch]">
        Four words that nobody would put together are good. The phrase is shown while you type it and never again: write it down
        for them now.
      </p>
    </form>
  );
} // prettier-ignore
