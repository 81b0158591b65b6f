/** Who may come in, and links with which one property may be read. */
import { ArrowLeft, UserPlus } from 'lucide-react';
import { useEffect, useState } from 'react';
import type { Person, Visitor } from '../../formats/visitor.js';
import { Links } from './Links.js';
import { NewPerson } from './NewPerson.js';
import { PersonRow } from './PersonRow.js';
import { sentence } from '../../core/base/words.js';
import { ask, type Refusal } from '../../ui/parts/ask.js';

export function People() {
  const [people, setPeople] = useState<readonly Person[] | null>(null);
  const [me, setMe] = useState<Visitor | null>(null);
  const [error, setError] = useState<string | null>(null);
  const load = () =>
    Promise.all([ask<Person[]>('/api/people'), ask<{ visitor: Visitor }>('/api/session')]).then(
      ([all, { visitor }]) => {
        setPeople(all);
        setMe(visitor);
      },
      (e: Refusal) => setError(sentence(e.reason)),
    );
  useEffect(() => void load(), []);
  const changed = (words: string | null) => {
    setError(words);
    void load();
  };
  return (
    <main className="mx-auto max-w-[860px] px-5 py-8 max-[700px]:py-5">
      <a className="button" href="/"><ArrowLeft size={14} aria-hidden /> All properties</a>
      <h1 className="mt-4 text-3xl font-semibold" style={{ fontStretch: '108%' }}>People</h1>
      {error && <p role="alert" className="text-stop mt-2">{error}</p>}
      {people === null && !error && <p role="status" className="mt-3">Looking …</p>}
      {people?.length === 0 && (
        <p className="mt-3 max-w-[64ch]">
          Nobody signs in yet: who sits at this machine does everything, and no other machine is let in. With the first person
          this ends: you are that one, an owner, and signed in here at once. Letting other machines in is a matter of how the
          server is started (README, Letting others in).
        </p>
      )}
      {people && people.length > 0 && (
        <ul className="border-rule mt-4 border-t" aria-label="People">
          {people.map((p) => (
            <PersonRow key={p.id} person={p} me={p.id === me?.id} changed={changed} />
          ))}
        </ul>
      )}
      {people && (
        <section aria-label="Let somebody in">
          <h2 className="heading border-ink mt-8 flex items-center gap-2 border-b pb-1">
            <UserPlus size={15} aria-hidden /> {people.length === 0 ? 'The first owner' : 'Let somebody in'}
          </h2>
          <NewPerson first={people.length === 0} changed={changed} />
        </section>
      )}
      {people && people.length > 0 && <Links onError={setError} />}
    </main>
  );
} // prettier-ignore
