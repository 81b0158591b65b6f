/** The properties that this browser has kept, where the server cannot be reached. */
import { useEffect, useState } from 'react';
import { keptProperties, type KeptProperty } from '../../session/field.js';

/** How often it is looked whether the server is there again, ms. */
const LOOK_MS = 10_000;

/** @param here this is the first page itself; else one that needs the server */
export function KeptList({ here }: { here: boolean }) {
  const [kept, setKept] = useState<readonly KeptProperty[] | null>(null);
  useEffect(() => {
    // Only stands in for other addresses; its own leads to the first page.
    if (location.pathname === '/away') return location.replace('/');
    document.title = 'Anabatic, without the server';
    void keptProperties().then(setKept);
    const timer = setInterval(() => {
      fetch('/api/health').then(
        (answer) => answer.ok && location.reload(),
        () => undefined,
      );
    }, LOOK_MS);
    return () => clearInterval(timer);
  }, []);
  return (
    <main className="mx-auto max-w-[700px] px-5 py-10 max-[700px]:py-6">
      <h1 className="text-4xl font-semibold" style={{ fontStretch: '108%' }}>Anabatic</h1>
      <p role="status" className="mt-3">
        The server cannot be reached. {here ? '' : 'This page needs it. '}What this browser has kept can be worked on; it goes out
        by itself when the server is there again.
      </p>
      <h2 className="heading border-ink mt-6 border-b pb-1">Kept in this browser</h2>
      <ul>
        {kept?.map(({ id, plan, asOf }) => (
          <li key={id} className="border-rule border-b py-3">
            <a className="font-semibold underline underline-offset-4" href={`/p/${id}/land`}>{plan.name}</a>
            <span className="label ml-3">as of {new Date(asOf).toLocaleString([], { dateStyle: 'medium', timeStyle: 'short' })}</span>
          </li>
        ))}
      </ul>
      {kept?.length === 0 && <p className="label py-3">Nothing yet: a property is kept once it has been opened here.</p>}
      <p className="mt-5"><button type="button" className="button" onClick={() => location.reload()}>Try again</button></p>
    </main>
  );
} // prettier-ignore
