import { kindOfName, kindsFor, type Waypoint, type WaypointKind } from '../../core/edit/bring.js';
import { THING_NAMES } from '../../core/edit/landEdits.js';

const NAMES: Readonly<Record<string, string>> = {
  gate: 'Gate',
  energiser: 'Energiser',
  ...THING_NAMES,
};

/** Places as they are taken: what the file, their name or the user says they are. */
export const understood = (places: readonly Waypoint[]): Waypoint[] =>
  places.map((p) => ({ ...p, kind: p.kind ?? kindOfName(p.name) }));

/** Places that came with a walk: each is named, and said to be something or left out. */
export function Waypoints({
  places,
  onChange,
}: {
  places: readonly Waypoint[];
  onChange: (places: Waypoint[]) => void;
}) {
  if (places.length === 0) return null;
  const set = (i: number, part: Partial<Waypoint>) =>
    onChange(places.map((p, k) => (k === i ? { ...p, ...part } : p)));
  const unknown = places.filter((p) => p.kind === null).length;
  return (
    <fieldset>
      <legend className="label">
        {places.length === 1 ? 'One place was marked' : `${places.length} places were marked`} on
        the way{unknown > 0 ? `; say what ${unknown === 1 ? 'one' : `${unknown}`} of them is` : ''}
      </legend>
      <ul className="max-h-60 overflow-y-auto">
        {places.map((p, i) => (
          <li key={i} className="flex gap-1.5 py-0.5">
            <input
              className="field w-40 min-w-0 flex-1"
              aria-label={`Name of place ${i + 1}`}
              maxLength={80}
              value={p.name}
              onChange={(e) => set(i, { name: e.target.value })}
            />
            <select
              className="field min-w-0 flex-1"
              aria-label={`What ${p.name || `place ${i + 1}`} is`}
              value={p.kind ?? ''}
              onChange={(e) => set(i, { kind: (e.target.value || null) as WaypointKind | null })}
            >
              <option value="">leave it out</option>
              {kindsFor(p.points).map((k) => (
                <option key={k} value={k}>
                  {NAMES[k]!.split(',')[0]}
                </option>
              ))}
            </select>
          </li>
        ))}
      </ul>
    </fieldset>
  );
}
