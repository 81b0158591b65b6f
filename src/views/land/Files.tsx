import { Archive, Download, Upload } from 'lucide-react';
import { useId, useState, type ChangeEvent } from 'react';
import { useSession } from '../../session/session.js';
import type { Guess, Said } from '../../ui/parts/imports.js';
import { ReferenceFields } from '../../ui/parts/Reference.js';
import { bringGround, bringWalk } from './bringFile.js';

/** Bring walked lines and ground in; take the plan out. */
export function Files() {
  const id = useSession((s) => s.id);
  return (
    <div className="mt-4 space-y-3">
      <WalkedImport />
      <GroundImport />
      <div>
        <p className="label">Save as a file</p>
        <div className="flex flex-wrap gap-1">
          {(['plan', 'geojson', 'gpx', 'kml', 'setout', 'dxf'] as const).map((format) => (
            <a
              key={format}
              className="button"
              href={`/api/properties/${id}/export?format=${format}`}
              download
            >
              <Download size={14} aria-hidden />{' '}
              {
                {
                  plan: 'Plan',
                  geojson: 'GeoJSON',
                  gpx: 'GPX',
                  kml: 'KML',
                  setout: 'Posts CSV',
                  dxf: 'DXF',
                }[format]
              }
            </a>
          ))}
          <a className="button" href={`/api/backup?property=${id}`} download>
            <Archive size={14} aria-hidden /> Backup, with history, log and photos
          </a>
        </div>
      </div>
    </div>
  );
}

function Outcome({ error, done }: { error: string | null; done: string | null }) {
  if (error)
    return (
      <p role="alert" className="text-stop text-xs">
        {error}
      </p>
    );
  return done ? (
    <p role="status" className="label">
      {done}
    </p>
  ) : null;
}

/** Reads one chosen file; what came of it, or why not, in words. */
function useFile(read: (file: File) => Promise<string>) {
  const [error, setError] = useState<string | null>(null);
  const [done, setDone] = useState<string | null>(null);
  const again = async (file: File, reading = () => read(file)) => {
    setError(null);
    setDone(null);
    try {
      setDone(await reading());
    } catch (e) {
      setError(`${file.name}: ${(e as Error).message}`);
    }
  };
  const take = async (event: ChangeEvent<HTMLInputElement>) => {
    const file = event.target.files?.[0];
    event.target.value = '';
    if (file) await again(file);
  };
  return { take, again, error, done };
}

function WalkedImport() {
  const field = useId();
  const { take, error, done } = useFile(async (file) => {
    await bringWalk(file);
    return '';
  });
  return (
    <div>
      <label htmlFor={field} className="label block">
        Lines: GPX, KML, GeoJSON, CSV, zipped shapefile
      </label>
      <FileField
        id={field}
        accept=".gpx,.kml,.geojson,.json,.csv,.zip"
        onChange={(e) => void take(e)}
      />
      <Outcome error={error} done={done} />
    </div>
  );
}

function GroundImport() {
  const field = useId();
  const [said, setSaid] = useState<Said>('guess');
  const [last, setLast] = useState<{ file: File; as: Guess } | null>(null);
  const read = async (file: File, as: Said) => {
    const brought = await bringGround(file, as);
    setLast({ file, as: brought.as });
    return brought.words;
  };
  const { take, again, error, done } = useFile((file) => read(file, said));
  return (
    <details>
      <summary className="label cursor-pointer">Ground: bring other heights in</summary>
      <label htmlFor={field} className="label block">
        GeoTIFF (.tif), ASCII grid (.asc) or points x, y, z (.csv)
      </label>
      <FileField id={field} accept=".asc,.txt,.csv,.tif,.tiff" onChange={(e) => void take(e)} />
      <ReferenceFields
        what="The ground"
        value={said}
        as={last?.as ?? null}
        suggested="utm 30n"
        degrees
        onChange={(as) => {
          setSaid(as);
          // What was brought in already is read again, as is now said.
          if (last) void again(last.file, () => read(last.file, as));
        }}
      />
      <Outcome error={error} done={done} />
    </details>
  );
}

export function FileField(p: {
  id: string;
  accept: string;
  onChange: (event: ChangeEvent<HTMLInputElement>) => void;
}) {
  return (
    <span className="flex items-center gap-1">
      <Upload size={14} aria-hidden />
      <input
        id={p.id}
        type="file"
        accept={p.accept}
        onChange={p.onChange}
        className="file:border-rule file:bg-panel file:text-ink w-full text-xs file:mr-2 file:cursor-pointer file:rounded-[3px] file:border file:px-2 file:py-1"
      />
    </span>
  );
}
