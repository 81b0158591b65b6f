/** Name, role and pass phrase of somebody who is to come in. */
import { useState, type SyntheticEvent } from 'react';
import type { Role } from '../../formats/visitor.js';
import { Button } from '../../ui/parts/Button.js';
import { Choice } from '../../ui/parts/controls.js';
import { postJson, type Refusal } from '../../ui/parts/ask.js';
import { FormFault, FormField, LevelWithFields, NewPhrase } from './FormField.js';
import { MAY, ROLE_WORDS } from './words.js';

export function NewPerson({ first, changed }: { first: boolean; changed: (words: string | null) => void }) {
  const [role, setRole] = useState<Role>('crew');
  const [refused, setRefused] = useState<Refusal | null>(null);
  const add = async (event: SyntheticEvent<HTMLFormElement>) => {
    event.preventDefault();
    const form = event.currentTarget;
    const said = new FormData(form);
    setRefused(null);
    try {
      await postJson('/api/people', { name: said.get('name'), phrase: said.get('phrase'), role: first ? 'owner' : role });
      form.reset();
      changed(null);
    } catch (e) {
      setRefused(e as Refusal);
    }
  };
  return (
    <form className="mt-3 space-y-3" onSubmit={(e) => void add(e)}>
      <div className="flex flex-wrap items-start gap-x-4 gap-y-3">
        <FormField label="Name" name="name" maxLength={60} refused={refused} />
        <NewPhrase label="Pass phrase" refused={refused} />
        <LevelWithFields><Button strong type="submit">{first ? 'Be the owner' : 'Let in'}</Button></LevelWithFields>
      </div>
      {!first && (
        <div className="flex flex-wrap items-center gap-3">
          <Choice<Role> label="Role" value={role} options={ROLE_WORDS} onChange={setRole} />
          <span className="label">{MAY[role]}</span>
        </div>
      )}
      <FormFault refused={refused} fields={['name', 'phrase']} />
      <p className="label max-w-[64ch]">
        Four words that nobody would put together are good. The phrase is shown while you type it and never again: write it down
        for them now.
      </p>
    </form>
  );
} // prettier-ignore
