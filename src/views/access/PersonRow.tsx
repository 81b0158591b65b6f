/** One person: role, a new phrase, shut out. */
import { useState, type SyntheticEvent } from 'react';
import type { Person, Role } from '../../formats/visitor.js';
import { Button } from '../../ui/parts/Button.js';
import { Select } from '../../ui/parts/controls.js';
import { sentence } from '../../core/base/words.js';
import { ask, type Refusal } from '../../ui/parts/ask.js';
import { LevelWithFields, NewPhrase } from './FormField.js';
import { MAY, ROLE_WORDS } from './words.js';

export function PersonRow({ person, me, changed }: { person: Person; me: boolean; changed: (words: string | null) => void }) {
  const [open, setOpen] = useState<'phrase' | 'remove' | null>(null);
  const [refused, setRefused] = useState<Refusal | null>(null);
  const at = `/api/people/${person.id}`;
  const run = (method: string, body?: object) =>
    ask(at, method, body).then(
      () => {
        setOpen(null);
        setRefused(null);
        changed(null);
      },
      (e: Refusal) => {
        setRefused(e);
        if (e.place !== '/phrase') changed(`${person.name}: ${sentence(e.reason)}`);
      },
    );
  const phrase = (event: SyntheticEvent<HTMLFormElement>) => {
    event.preventDefault();
    void run('PUT', { phrase: new FormData(event.currentTarget).get('phrase') });
  };
  return (
    <li className="border-rule space-y-2 border-b py-2">
      <div className="flex flex-wrap items-center gap-x-4 gap-y-1">
        <span className="min-w-40 font-semibold"><bdi>{person.name}</bdi>{me && <span className="label ml-2 font-normal">you</span>}</span>
        <Select<Role> label={`Role of ${person.name}`} hideLabel value={person.role} options={ROLE_WORDS} onChange={(role) => void run('PUT', { role })} />
        <span className="label flex-1">{MAY[person.role]}</span>
        <span className="inline-flex gap-2">
          <Button aria-expanded={open === 'phrase'} onClick={() => setOpen(open === 'phrase' ? null : 'phrase')}>New pass phrase</Button>
          <Button aria-expanded={open === 'remove'} onClick={() => setOpen(open === 'remove' ? null : 'remove')}>Shut out</Button>
        </span>
      </div>
      {open === 'phrase' && (
        <form className="flex flex-wrap items-start gap-3" onSubmit={phrase}>
          <NewPhrase label="New pass phrase" autoFocus refused={refused} />
          <LevelWithFields><Button strong type="submit">Set it</Button></LevelWithFields>
          <span className="label w-full">Signs {me ? 'you' : 'them'} out wherever the old one was used{me ? ', not here' : ''}.</span>
        </form>
      )}
      {open === 'remove' && (
        <p className="flex flex-wrap items-center gap-3">
          <Button strong onClick={() => void run('DELETE')}>Shut {person.name} out now</Button>
          <span className="label">What they did stays, with their name.</span>
        </p>
      )}
    </li>
  );
} // prettier-ignore
