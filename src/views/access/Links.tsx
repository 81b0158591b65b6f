/** Links with which one property may be read, by whoever has them; taken back at any time. */
import { Link2 } from 'lucide-react';
import { useCallback, useEffect, useState, type SyntheticEvent } from 'react';
import type { Share } from '../../formats/visitor.js';
import { Button } from '../../ui/parts/Button.js';
import { Select } from '../../ui/parts/controls.js';
import { sentence } from '../../core/base/words.js';
import { ask, postJson, type Refusal } from '../../ui/parts/ask.js';
import { FormField } from './FormField.js';

interface Named {
  readonly id: string;
  readonly name: string;
}

const dayOf = (iso: string) =>
  new Date(iso).toLocaleDateString([], { day: 'numeric', month: 'short', year: 'numeric' });

export function Links({ onError }: { onError: (words: string | null) => void }) {
  const [properties, setProperties] = useState<readonly Named[]>([]);
  const [id, setId] = useState('');
  const [links, setLinks] = useState<readonly Share[]>([]);
  const [fresh, setFresh] = useState<string | null>(null);
  const failed = useCallback((e: Refusal) => onError(sentence(e.reason)), [onError]);
  useEffect(() => {
    ask<Named[]>('/api/properties').then(
      (all) => {
        setProperties(all);
        setId(all[0]?.id ?? '');
      },
      failed,
    );
  }, [failed]);
  const at = `/api/properties/${id}/shares`;
  const load = useCallback(
    () => ask<Share[]>(at).then(setLinks, failed),
    [at, failed],
  );
  useEffect(() => {
    setFresh(null);
    if (id) void load();
  }, [id, load]);
  const make = async (event: SyntheticEvent<HTMLFormElement>) => {
    event.preventDefault();
    const form = event.currentTarget;
    try {
      const { token } = await postJson<{ token: string }>(at, { words: new FormData(form).get('words') });
      setFresh(`${location.origin}/s/${token}`);
      form.reset();
      onError(null);
      await load();
    } catch (e) {
      failed(e as Refusal);
    }
  };
  const takeBack = (share: string) =>
    ask(`${at}/${share}`, 'DELETE').then(load, failed);
  if (properties.length === 0) return null;
  return (
    <section aria-label="Links to read">
      <h2 className="heading border-ink mt-8 flex items-center gap-2 border-b pb-1"><Link2 size={15} aria-hidden /> Links to read</h2>
      <p className="mt-2 max-w-[64ch]">Whoever has such a link may look at one property, its log and prices too, and change nothing.</p>
      <form className="mt-3 flex flex-wrap items-end gap-3" onSubmit={(e) => void make(e)}>
        <Select label="Property" value={id} options={properties.map((p) => [p.id, p.name] as const)} onChange={setId} />
        <FormField label="For whom" name="words" maxLength={80} />
        <Button strong type="submit">Make a link</Button>
      </form>
      {fresh && (
        <p role="status" className="border-rule bg-panel mt-3 space-y-2 border p-3" data-link={fresh}>
          <span className="figure block break-all">{fresh}</span>
          <span className="flex flex-wrap items-center gap-3">
            <Button onClick={() => void navigator.clipboard?.writeText(fresh)}>Copy</Button>
            <span className="label">Shown this once: only its mark is kept here.</span>
          </span>
        </p>
      )}
      <ul className="mt-3" aria-label="Links">
        {links.map((l) => (
          <li key={l.id} className="border-rule flex flex-wrap items-center gap-x-4 gap-y-1 border-b py-2">
            <span className="min-w-40">{l.words}</span>
            <span className="label flex-1">
              made {dayOf(l.made_at)}, {l.revoked_at ? `taken back ${dayOf(l.revoked_at)}` : l.used_at ? `last opened ${dayOf(l.used_at)}` : 'not opened yet'}
            </span>
            {!l.revoked_at && <Button onClick={() => void takeBack(l.id)}>Take back</Button>}
          </li>
        ))}
      </ul>
    </section>
  );
} // prettier-ignore
