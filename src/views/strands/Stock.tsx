import { Check } from '../../ui/parts/controls.js';
import { sideWords } from '../../core/land/ring.js';
import { say } from '../../core/base/units.js';
import type { Line } from '../../core/plan/schema.js';
import { useUnits } from '../../ui/parts/Num.js';
import { useCatalogue } from '../../session/catalogue.js';
import { commit } from '../../session/session.js';

/** Stock on each side and what is kept out. Left and right as one walks from the first vertex. */
export function Stock({ line }: { line: Line }) {
  const cat = useCatalogue();
  const units = useUnits();
  const stock = Object.entries(cat.profiles).filter(
    ([id, p]) => p.role === 'stock' && id !== 'cattle-boundary',
  );
  const predators = Object.entries(cat.profiles).filter(([, p]) => p.role === 'predator');
  const toggle = (list: 'left' | 'right' | 'keepOut', profile: string, on: boolean) =>
    commit(`stock at ${line.name}`, (d) => {
      const l = d.lines[line.id]!;
      l[list] = on ? [...l[list], profile] : l[list].filter((x) => x !== profile);
    });
  const column = (title: string, list: 'left' | 'right' | 'keepOut', options: typeof stock) => (
    <fieldset>
      <legend className="label mb-1">{title}</legend>
      {options.map(([id, p]) => (
        <label
          key={id}
          className="flex items-center gap-2 py-0.5"
          title={`${p.why} Aim ${say(p.aim_V, 'volt', units)}.`}
        >
          <input
            type="checkbox"
            className="size-4"
            checked={line[list].includes(id)}
            onChange={(event) => toggle(list, id, event.target.checked)}
          />
          {p.name}
        </label>
      ))}
    </fieldset>
  );
  const flag = (key: 'boundary' | 'stepOver' | 'snow' | 'dim', label: string) => (
    <Check
      label={label}
      checked={line[key] ?? false}
      onChange={(on) =>
        commit(`${label}, ${line.name}`, (d) => {
          const l = d.lines[line.id]!;
          if (key === 'boundary' || on) l[key] = on;
          else delete l[key];
        })
      }
    />
  );
  return (
    <div className="mb-5 grid grid-cols-4 gap-4 max-[900px]:grid-cols-2 max-[700px]:grid-cols-1">
      {column(sideWords(line, 'left'), 'left', stock)}
      {column(sideWords(line, 'right'), 'right', stock)}
      {column('kept out', 'keepOut', predators)}
      <fieldset>
        <legend className="label mb-1">the place</legend>
        {flag('boundary', 'boundary of the property')}
        {flag('stepOver', 'people step over')}
        {flag('snow', 'snow or frozen ground')}
        {flag('dim', 'stock meet it in dim light')}
      </fieldset>
      <details className="col-span-full" open={(line.later ?? []).length > 0}>
        <summary className="label cursor-pointer">What must it hold later?</summary>
        <p className="label mt-1">
          What would then be missing is listed among the findings, so that posts and ends are chosen
          once.
        </p>
        <div className="flex flex-wrap gap-x-4">
          {[...stock, ...predators].map(([id, p]) => (
            <Check
              key={id}
              label={p.name}
              checked={line.later?.includes(id) ?? false}
              onChange={(on) =>
                commit(`what ${line.name} must hold later`, (d) => {
                  const l = d.lines[line.id]!;
                  const next = (l.later ?? []).filter((x) => x !== id);
                  if (on) next.push(id);
                  if (next.length > 0) l.later = next;
                  else delete l.later;
                })
              }
            />
          ))}
        </div>
      </details>
    </div>
  );
}
