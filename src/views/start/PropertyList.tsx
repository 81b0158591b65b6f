import { Plus } from 'lucide-react';
import { useId, useState, type ChangeEvent } from 'react';
import { postJson } from '../../ui/parts/imports.js';

interface Row {
  readonly id: string;
  readonly name: string;
  readonly created_at: string;
  readonly revision: number;
}

/** The properties of this store, a new one, or one from a plan file. */
export function PropertyList({
  properties,
  missing,
}: {
  properties: readonly Row[];
  missing: boolean;
}) {
  const field = useId();
  const [error, setError] = useState<string | null>(missing ? 'There is no such property.' : null);
  const take = async (event: ChangeEvent<HTMLInputElement>) => {
    const file = event.target.files?.[0];
    event.target.value = '';
    if (!file) return;
    setError(null);
    try {
      let value: object;
      try {
        value = JSON.parse(await file.text()) as object;
      } catch (e) {
        throw new Error(`not a plan file: ${(e as Error).message}`);
      }
      const { id } = await postJson<{ id: string }>('/api/properties', value);
      location.assign(`/p/${id}/land`);
    } catch (e) {
      setError(`${file.name}: ${(e as Error).message}`);
    }
  };
  return (
    <main className="mx-auto max-w-[720px] px-5 py-12">
      <h1 className="text-3xl font-semibold" style={{ fontStretch: '108%' }}>
        Anabatic
      </h1>
      <p className="mt-1 max-w-[52ch] text-[15px]">
        Plans, builds and looks after permanent high-tensile electric fences: from a walked line to
        an order list, with the reason beside every number.
      </p>
      <h2 className="heading border-ink mt-8 border-b pb-1">Properties</h2>
      <ul>
        {properties.map((p) => (
          <li key={p.id} className="border-rule border-b">
            <a
              className="hover:bg-chosen flex items-baseline justify-between gap-4 px-1 py-2.5"
              href={`/p/${p.id}/land`}
            >
              <span className="font-semibold underline underline-offset-4">{p.name}</span>
              <span className="label">
                {p.revision === 0 ? 'unchanged' : `${p.revision} changes`}, since{' '}
                {p.created_at.slice(0, 10)}
              </span>
            </a>
          </li>
        ))}
        {properties.length === 0 && <li className="label py-3">None yet.</li>}
      </ul>
      <div className="mt-5 flex flex-wrap items-end gap-x-8 gap-y-4">
        <a className="button button-strong" href="/new">
          <Plus size={15} aria-hidden /> New property
        </a>
        <div>
          <label htmlFor={field} className="label block">
            or from a plan file
          </label>
          <input
            id={field}
            type="file"
            accept=".json"
            onChange={(e) => void take(e)}
            className="file:border-rule file:bg-panel file:text-ink text-xs file:mr-2 file:cursor-pointer file:rounded-[3px] file:border file:px-2 file:py-1.5"
          />
        </div>
      </div>
      {error && (
        <p role="alert" className="text-live mt-3">
          {error}
        </p>
      )}
      <p className="label mt-10 max-w-[70ch]">
        A first opinion with its reasons, never a promise that a fence is safe or lawful. Follow
        local codes and the maker's instructions, and leave mains work and loaded structures to
        licensed people.
      </p>
    </main>
  );
}
