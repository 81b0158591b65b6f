/** Everything in one file, out and in. */
import { Archive } from 'lucide-react';
import { useId, useState } from 'react';
import { FilePick } from './questions.js';

interface Restored {
  readonly id: string;
  readonly name: string;
  readonly as: 'new' | 'copy' | 'there already';
}

const WORDS: Readonly<Record<Restored['as'], string>> = {
  new: 'brought back',
  copy: 'brought back beside the one that stands here, since that has changed',
  'there already': 'stands here already, equal in every part',
};

/** @param any there is something to take a backup of */
export function Backups({ any, onError }: { any: boolean; onError: (words: string | null) => void }) {
  const field = useId();
  const [busy, setBusy] = useState(false);
  const [came, setCame] = useState<readonly Restored[]>([]);
  const take = async (files: FileList | null) => {
    const file = files?.[0];
    if (!file) return;
    onError(null);
    setCame([]);
    setBusy(true);
    try {
      const answer = await fetch('/api/restore', {
        method: 'POST',
        headers: { 'content-type': 'application/zip' },
        body: file,
      });
      const said = (await answer.json().catch(() => null)) as Restored[] | { error?: string } | null;
      if (!answer.ok || !Array.isArray(said))
        throw new Error((said as { error?: string } | null)?.error ?? `the server answered ${answer.status}`);
      setCame(said);
    } catch (e) {
      onError(`${file.name}: ${(e as Error).message}. Nothing of it was brought.`);
    } finally {
      setBusy(false);
    }
  };
  return (
    <section aria-label="Backup">
      <h2 className="heading border-ink mt-10 border-b pb-1">Backup</h2>
      <p className="mt-2 max-w-[70ch]">
        One zip with every property: plans, their whole history, log, photos and prices, in formats that other programs open
        too. The server keeps a copy of its store for each day beside it as well; that is no help when its disk is lost.
      </p>
      <div className="mt-3 flex flex-wrap items-center gap-x-6 gap-y-2">
        {any && (
          <a className="button" href="/api/backup" download>
            <Archive size={14} aria-hidden /> Take a backup of everything
          </a>
        )}
        <span className="flex flex-wrap items-center gap-2">
          <label htmlFor={field} className="label">Bring a backup back:</label>
          <FilePick id={field} accept=".zip,application/zip" shown={[]} take={(f) => void take(f)} />
        </span>
      </div>
      {busy && <p role="status" className="mt-2">Reading the backup …</p>}
      {came.length > 0 && (
        <div role="status" className="mt-2" data-restored>
        <ul>
          {came.map((r) => (
            <li key={r.id}>
              ✓ <a className="underline underline-offset-4" href={`/p/${r.id}/land`}>{r.name}</a>: {WORDS[r.as]}.
            </li>
          ))}
        </ul>
        </div>
      )}
    </section>
  );
} // prettier-ignore
