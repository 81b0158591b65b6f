import { Play, Plus } from 'lucide-react';
import { useId, useState } from 'react';
import type { Role } from '../../formats/visitor.js';
import { TEMPLATES } from '../../core/edit/templates.js';
import { Button } from '../../ui/parts/Button.js';
import { postJson } from '../../ui/parts/ask.js';
import { useAwake } from '../../ui/parts/awake.js';
import { Backups } from './Backups.js';
import { Door } from './Door.js';
import { Property, type Row } from './Property.js';
import { FilePick } from './questions.js';
import { ShapePicture } from './Shapes.js';

/** The first page: what the program does, the properties of this store, and ways to begin. */
export function PropertyList({
  properties,
  said,
  visitor: { name, role },
}: {
  properties: readonly Row[];
  /** What somebody who was sent here is told. */
  said: string | null;
  visitor: { readonly name: string; readonly role: Role };
}) {
  const [error, setError] = useState<string | null>(said);
  return (
    <main className="mx-auto max-w-[1100px] px-5 py-10 max-[700px]:py-6">
      <fieldset className="contents" disabled={!useAwake()}>
        <div className="grid grid-cols-[5fr_7fr] items-center gap-8 max-[800px]:grid-cols-1">
          <div>
            <h1 className="text-4xl font-semibold" style={{ fontStretch: '108%' }}>
              Anabatic
            </h1>
            <p className="mt-2 max-w-[46ch] text-[1.071rem]">
              Plans, builds and looks after permanent high-tensile electric fences: from a walked
              line to an order list, with the reason beside every number.
            </p>
            {role === 'owner' && (
              <div className="mt-5 flex flex-wrap gap-2">
                <a className="button button-strong" href="/new">
                  <Plus size={15} aria-hidden /> New property
                </a>
                <Sample onError={setError} />
              </div>
            )}
          </div>
          <figure>
            <img
              className="border-rule w-full border dark:hidden"
              src="/sample-light.png"
              width={960}
              height={540}
              loading="lazy"
              alt="The sample farm: its fences on a map with contours, and below it one fence from end to end with its posts, strands and volts."
            />
            <img
              className="border-rule hidden w-full border dark:block"
              src="/sample-dark.png"
              width={960}
              height={540}
              loading="lazy"
              alt="The sample farm in the dark scheme: its fences on a map, and below it one fence from end to end."
            />
            <figcaption className="label mt-1">
              The sample farm. Everything in it is made up.
            </figcaption>
          </figure>
        </div>
        {error && (
          <p role="alert" className="text-stop mt-3">
            {error}
          </p>
        )}
        <h2 className="heading border-ink mt-10 border-b pb-1">Properties</h2>
        <ul className="grid grid-cols-2 gap-x-6 max-[800px]:grid-cols-1">
          {properties.map((p) => (
            <Property key={p.id} row={p} />
          ))}
        </ul>
        {properties.length === 0 && role !== 'owner' && (
          <p className="label py-3">None yet: an owner makes the first.</p>
        )}
        {properties.length === 0 && role === 'owner' && (
          <p className="label py-3">
            None yet. Begin with your own ground, with one of the shapes below, or look at the
            sample farm first.
          </p>
        )}
        {role === 'owner' && <Begin onError={setError} />}
        {role === 'owner' && <Backups any={properties.length > 0} onError={setError} />}
        <Door name={name} role={role} />
        <p className="label mt-10 max-w-[70ch]">
          A first opinion with its reasons, never a promise that a fence is safe or lawful. Follow
          local codes and the maker's instructions, and leave mains work and loaded structures to
          licensed people.
        </p>
      </fieldset>
    </main>
  );
}

/** Ways to begin that are not the guided start. */
function Begin({ onError }: { onError: (words: string | null) => void }) {
  return (
    <>
      <PlanFile onError={onError} />
      <h2 className="heading border-ink mt-10 border-b pb-1">Begin with a shape</h2>
      <ul className="mt-3 grid grid-cols-3 gap-4 max-[700px]:grid-cols-1">
        {Object.entries(TEMPLATES).map(([id, t]) => (
          <li key={id}>
            <a
              className="border-rule hover:border-ink bg-panel flex h-full flex-col gap-2 rounded-[3px] border p-3"
              href={`/new?from=${id}`}
            >
              <ShapePicture id={id} />
              <span className="font-semibold underline underline-offset-4">{t.name}</span>
              <span className="label">{t.words}</span>
            </a>
          </li>
        ))}
      </ul>
    </>
  );
}

/** Opens the invented farm with its tour. */
function Sample({ onError }: { onError: (words: string) => void }) {
  const [busy, setBusy] = useState(false);
  const open = async () => {
    setBusy(true);
    try {
      const { id } = await postJson<{ id: string }>('/api/sample', {});
      location.assign(`/p/${id}/land?tour`);
    } catch (e) {
      onError((e as Error).message);
      setBusy(false);
    }
  };
  return (
    <Button disabled={busy} onClick={() => void open()}>
      <Play size={14} aria-hidden /> Open the sample farm
    </Button>
  );
}

/** A property from a plan file. */
function PlanFile({ onError }: { onError: (words: string | null) => void }) {
  const field = useId();
  const take = async (files: FileList | null) => {
    const file = files?.[0];
    if (!file) return;
    onError(null);
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
      onError(`${file.name}: ${(e as Error).message}`);
    }
  };
  return (
    <div className="mt-3 flex flex-wrap items-center gap-2">
      <label htmlFor={field} className="label">
        A plan file brings a property in:
      </label>
      <FilePick id={field} accept=".json" shown={[]} take={(f) => void take(f)} />
    </div>
  );
}
