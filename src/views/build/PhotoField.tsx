/** A photo taken or chosen: made small, kept, shown; the phone opens its camera. */
import { Camera } from 'lucide-react';
import { useId, useState } from 'react';
import { photoAt, takePhoto, usePhotos } from '../../session/photos.js';
import { FieldFault } from '../../ui/parts/FieldFault.js';

export function PhotoField({ label, onTaken }: { label: string; onTaken: (hash: string) => void }) {
  const id = useId();
  const [fault, setFault] = useState<string | null>(null);
  const [busy, setBusy] = useState(false);
  const refused = usePhotos((p) => p.refused);
  return (
    <span className="inline-flex flex-wrap items-center gap-2">
      <label htmlFor={id} className="button small focus-within:outline-2">
        <Camera size={14} aria-hidden /> photo
        <input
          id={id}
          className="sr-only"
          type="file"
          accept="image/*"
          capture="environment"
          aria-label={label}
          disabled={busy}
          onChange={(e) => {
            const file = e.target.files?.[0];
            e.target.value = '';
            if (!file) return;
            setBusy(true);
            setFault(null);
            takePhoto(file)
              .then(onTaken, (error: Error) => setFault(error.message))
              .finally(() => setBusy(false));
          }}
        />
      </label>
      {busy && <span role="status">One moment …</span>}
      {fault && <FieldFault>{fault}</FieldFault>}
      {refused && <FieldFault>{`A photo stays on this device only: ${refused}.`}</FieldFault>}
    </span>
  );
}

/** A kept photo, small; pressed it is shown large. */
export function Photo({ hash, words }: { hash: string; words: string }) {
  const waiting = usePhotos((p) => p.waiting);
  const at = photoAt(hash, waiting);
  return (
    <a href={at} target="_blank" rel="noreferrer" title={waiting[hash] ? 'on its way to the server' : words}>
      <img src={at} alt={words} className="border-rule h-14 w-auto border object-cover" loading="lazy" />
    </a>
  );
} // prettier-ignore
