import { useState } from 'react';
import { Copy, Printer, Trash2 } from 'lucide-react';
import { say, type Units } from '../../core/base/units.js';
import type { Design, Line } from '../../core/plan/schema.js';
import { differences, usersOf, type Difference } from '../../core/strands/designs.js';
import { Part, NameField } from '../../ui/parts/controls.js';
import { useUnits } from '../../ui/parts/Num.js';
import { restring } from '../../core/edit/joining.js';
import { commit, useSession } from '../../session/session.js';
import { chooseLine } from '../../session/view.js';
import { Button } from '../../ui/parts/Button.js';

/** The make-ups of this property that have a name: where each is used, and who has left it. */
export function Designs({ line }: { line: Line }) {
  const designs = useSession((s) => s.plan.designs);
  const id = useSession((s) => s.id);
  const [name, setName] = useState('');
  const [error, setError] = useState<string | null>(null);
  const all = Object.values(designs ?? {});
  const keep = () => {
    const clean = name.trim();
    if (clean === '') return setError('A name is wanted.');
    if (all.some((d) => d.name.toLowerCase() === clean.toLowerCase()))
      return setError('There is a design of that name.');
    commit(`design ${clean}`, (d) => {
      const key = freshId(d.designs);
      d.designs = {
        ...d.designs,
        [key]: { id: key, name: clean, strands: line.strands.map((s) => ({ ...s })) },
      };
      d.lines[line.id]!.design = key;
    });
    setName('');
    setError(null);
  };
  return (
    <Part
      title="Designs of this property"
      aside={
        <a className="button" href={`/stick/${id}?line=${line.id}`}>
          <Printer size={14} aria-hidden /> Marked stick of this line
        </a>
      }
    >
      <form
        className="mb-4 flex flex-wrap items-center gap-2"
        onSubmit={(event) => {
          event.preventDefault();
          keep();
        }}
      >
        <label className="label" htmlFor="design-name">
          Keep the strands of {line.name} as a design
        </label>
        <input
          id="design-name"
          className="field w-52"
          value={name}
          maxLength={80}
          aria-invalid={error !== null}
          aria-describedby={error ? 'design-error' : undefined}
          onChange={(event) => setName(event.target.value)}
        />
        <Button type="submit">Keep it</Button>
        {error && (
          <span id="design-error" role="alert" className="text-stop w-full text-xs">
            {error}
          </span>
        )}
      </form>
      {all.length === 0 && <p className="label">None yet.</p>}
      {all.map((d) => (
        <DesignRow key={d.id} design={d} line={line} property={id} />
      ))}
    </Part>
  );
}

const freshId = (designs: Record<string, Design> | undefined): string => {
  let n = Object.keys(designs ?? {}).length + 1;
  while (designs?.[`d${n}`]) n++;
  return `d${n}`;
};

function DesignRow({ design, line, property }: { design: Design; line: Line; property: string }) {
  const lines = useSession((s) => s.plan.lines);
  const units = useUnits();
  const [open, setOpen] = useState(false);
  const users = usersOf({ lines }, design.id);
  const put = (ids: readonly string[]) =>
    commit(
      `${design.name} on ${ids.length === 1 ? lines[ids[0]!]!.name : `${ids.length} lines`}`,
      (d) => {
        for (const id of ids) {
          restring(
            d,
            id,
            design.strands.map((s) => ({ ...s })),
          );
          d.lines[id]!.design = design.id;
        }
      },
    );
  const rename = (name: string) =>
    commit(`renamed ${design.name}`, (d) => {
      d.designs![design.id]!.name = name;
    });
  const away = () =>
    commit(`took the design ${design.name} away`, (d) => {
      delete d.designs![design.id];
      if (Object.keys(d.designs!).length === 0) delete d.designs;
      for (const l of Object.values(d.lines)) if (l.design === design.id) delete l.design;
    });
  const copy = () =>
    commit(`copied ${design.name}`, (d) => {
      const key = freshId(d.designs);
      d.designs![key] = {
        id: key,
        name: `${design.name.slice(0, 70)}, copy`,
        strands: design.strands.map((s) => ({ ...s })),
      };
    });
  return (
    <section aria-label={design.name} className="border-rule mb-4 border-b pb-3">
      <div className="flex flex-wrap items-center gap-2">
        <NameField
          name={design.name}
          label={`Name of the design ${design.name}`}
          onCommit={rename}
          width="w-52"
        />
        <span className="figure text-[0.929rem] whitespace-normal">
          {design.strands
            .map((s) => `${say(s.height_m, 'height', units)}${LETTER[s.duty]}`)
            .join('  ')}
        </span>
      </div>
      <div className="mt-2 flex flex-wrap gap-2">
        <Button onClick={() => put([line.id])}>Put on {line.name}</Button>
        <Button aria-expanded={open} onClick={() => setOpen(!open)}>
          Put on several …
        </Button>
        <Button
          onClick={() =>
            commit(`${design.name} as on ${line.name}`, (d) => {
              d.designs![design.id]!.strands = line.strands.map((s) => ({ ...s }));
              d.lines[line.id]!.design = design.id;
            })
          }
        >
          Make it as {line.name}
        </Button>
        <Button onClick={copy}>
          <Copy size={14} aria-hidden /> Copy
        </Button>
        <a className="button" href={`/stick/${property}?design=${design.id}`}>
          <Printer size={14} aria-hidden /> Marked stick
        </a>
        <Button aria-label={`Take ${design.name} away`} onClick={away}>
          <Trash2 size={14} aria-hidden />
        </Button>
      </div>
      {open && <Several design={design} onPut={put} onDone={() => setOpen(false)} />}
      {users.length === 0 ? (
        <p className="label mt-2">Used nowhere.</p>
      ) : (
        <ul className="mt-2 space-y-0.5">
          {users.map((l) => {
            const diff = differences(l.strands, design.strands);
            return (
              <li key={l.id}>
                <button className="cursor-pointer underline" onClick={() => chooseLine(l.id)}>
                  {l.name}
                </button>{' '}
                {diff.length === 0 ? (
                  <span className="label">as designed</span>
                ) : (
                  <>
                    <span className="text-warn font-semibold">has left it: </span>
                    {diff.map((x) => words(x, units)).join('; ')}{' '}
                    <Button className="small" onClick={() => put([l.id])}>
                      Back to the design
                    </Button>
                  </>
                )}
              </li>
            );
          })}
        </ul>
      )}
    </section>
  );
}

const LETTER = { live: ' L', earth: ' E', cold: ' C' } as const;

const words = (d: Difference, units: Units): string => {
  switch (d.kind) {
    case 'more':
      return `more at ${d.heights_m.map((h) => say(h, 'height', units)).join(', ')}`;
    case 'fewer':
      return `without ${d.heights_m.map((h) => say(h, 'height', units)).join(', ')}`;
    case 'height':
      return `strand ${d.strand} at ${say(d.to_m, 'height', units)} instead of ${say(d.from_m, 'height', units)}`;
    default:
      return `strand ${d.strand} is made otherwise`;
  }
};

/** A design put on many lines at once. */
function Several({
  design,
  onPut,
  onDone,
}: {
  design: Design;
  onPut: (ids: readonly string[]) => void;
  onDone: () => void;
}) {
  const lines = useSession((s) => s.plan.lines);
  const [ids, setIds] = useState<readonly string[]>([]);
  return (
    <fieldset className="border-rule mt-2 border p-2">
      <legend className="label px-1">Lines that get {design.name}</legend>
      <div className="grid grid-cols-3 gap-x-4 max-[700px]:grid-cols-1">
        {Object.values(lines).map((l) => (
          <label key={l.id} className="flex items-center gap-2 py-0.5">
            <input
              type="checkbox"
              className="size-4"
              checked={ids.includes(l.id)}
              onChange={(event) =>
                setIds(event.target.checked ? [...ids, l.id] : ids.filter((x) => x !== l.id))
              }
            />
            {l.name}
          </label>
        ))}
      </div>
      <Button
        strong
        className="mt-2"
        disabled={ids.length === 0}
        onClick={() => {
          onPut(ids);
          onDone();
        }}
      >
        Put it on {ids.length} {ids.length === 1 ? 'line' : 'lines'}
      </Button>
    </fieldset>
  );
}
