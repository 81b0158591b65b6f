import { DataTable } from '../../ui/parts/DataTable.js';
import { useId, useState, type FormEvent } from 'react';
import { fromField, say, toField, unitOf } from '../../core/base/units.js';
import { DEMANDS, type Demand, type Line } from '../../core/plan/schema.js';
import type { DemandRow, Requirement } from '../../core/report/schema.js';
import { Num, useUnits, type Origin } from '../../ui/parts/Num.js';
import { MARK_NAMES, recordAt } from '../../ui/parts/origin.js';
import { Part } from '../../ui/parts/controls.js';
import { FieldFault } from '../../ui/parts/FieldFault.js';
import { useDraft } from '../../ui/parts/draft.js';
import { catalogue } from '../../core/plan/shipped.js';
import { useCatalogue } from '../../session/catalogue.js';
import { commit } from '../../session/session.js';
import { ABOUT, PLAIN, who } from './words.js';
import { Button } from '../../ui/parts/Button.js';

/** Every requirement with whose it is, its figure and its mark; each can be replaced with a note. */
export function Demands({ line, need }: { line: Line; need: Requirement }) {
  const cat = useCatalogue();
  return (
    <Part title="What this line asks of its strands">
      <DataTable
        label="What this line asks"
        rows={need.rows}
        keyOf={(row) => row.about}
        columns={[
          { name: 'requirement', cell: (row) => ABOUT[row.about].name },
          { name: 'figure', cell: (row) => <Asked row={row} /> },
          {
            name: 'whose',
            cell: (row) => (row.profile ? who(row.profile, cat) : 'every fence'),
          },
          {
            name: 'mark',
            className: 'label',
            cell: (row) =>
              row.note === null ? MARK_NAMES[recordAt(catalogue, row.path).mark] : 'own',
          },
          { name: 'own figure', quiet: true, cell: (row) => <Own line={line} row={row} /> },
        ]}
      />
      <p className="label mt-2">
        The strictest figure of everybody on both sides and of what is kept out. Trained stock are
        held with less by many; kids and hard-pressing animals want more.
      </p>
    </Part>
  );
}

/** The figure that is asked, with where it comes from. */
function Asked({ row }: { row: DemandRow }) {
  const cat = useCatalogue();
  const units = useUnits();
  const { name, q, sign } = ABOUT[row.about];
  const { why } = recordAt(catalogue, row.path);
  const flag = PLAIN.includes(row.about);
  const field = row.path.split('.').at(-1)!;
  const numeric = typeof row.value === 'number' && !flag && row.about !== 'opening';
  const from: Origin = {
    kind: row.about === 'opening' ? 'formula' : 'default',
    title: row.profile ? cat.profiles[row.profile]!.name : name,
    source: row.about === 'opening' ? OPENING : why,
    ...(numeric && field !== 'holdBay_m'
      ? { inputs: [{ name, path: row.path, ...(q === 'count' ? {} : { quantity: q }) }] }
      : {}),
    ...(row.about === 'opening'
      ? {
          inputs: [
            { name: 'Bay that holds', path: row.path, quantity: 'length' as const },
            {
              name: 'Push',
              path: 'defaults.wire.pushForce.value',
              quantity: 'force' as const,
            },
          ],
        }
      : {}),
  };
  return (
    <>
      {flag ? (
        <>{row.value > 0 ? 'yes' : 'not here'}</>
      ) : (
        <>
          {sign} <Num value={row.value} q={q} from={from} />
        </>
      )}
      {row.note !== null && (
        <span className="label block">
          this line’s own; usual {flag ? 'yes' : say(row.usual, q, units)}. {row.note}
        </span>
      )}
    </>
  );
}

/** Puts an own figure in, or goes back to the usual one. */
function Own({ line, row }: { line: Line; row: DemandRow }) {
  const [open, setOpen] = useState(false);
  const { name } = ABOUT[row.about];
  const flag = PLAIN.includes(row.about);
  if (!DEMANDS.includes(row.about as Demand)) return null;
  if (open) return <OwnFigure line={line} row={row} onDone={() => setOpen(false)} />;
  return (
    <span className="flex gap-2">
      <button
        className="label cursor-pointer underline"
        aria-label={`${flag ? 'Leave out' : 'Own figure for'} ${name.toLowerCase()}`}
        onClick={() => setOpen(true)}
      >
        {row.note !== null ? 'change' : flag ? 'leave it out' : 'own figure'}
      </button>
      {row.note !== null && (
        <button
          className="label cursor-pointer underline"
          onClick={() =>
            commit(`usual ${name.toLowerCase()} on ${line.name}`, (d) => {
              const l = d.lines[line.id]!;
              delete l.demands![row.about as Demand];
              if (Object.keys(l.demands!).length === 0) delete l.demands;
            })
          }
        >
          back to usual
        </button>
      )}
    </span>
  );
}

const OPENING =
  'What the usual push opens in a fence that practice says just holds: this profile’s longest bay at its tension on a hot day. A fence may open its gaps by as much, and by more where the gap itself is smaller.';

const MOST: Partial<Record<Demand, number>> = { count: 20, live: 20, aim: 15000 };

/** A figure for this line alone; it wants a note of why. */
function OwnFigure({ line, row, onDone }: { line: Line; row: DemandRow; onDone: () => void }) {
  const units = useUnits();
  const id = useId();
  const { name, q } = ABOUT[row.about];
  const flag = PLAIN.includes(row.about);
  const about = row.about as Demand;
  const figure = useDraft({
    shown: toField(row.value, q, units),
    read: (text) => {
      const value = fromField(text, q, units);
      const most = MOST[about] ?? 3;
      if (!(value > 0)) return { error: 'A number above 0 is wanted.' };
      if (value > most) return { error: `At most ${say(most, q, units)}.` };
      if (q === 'count' && !Number.isInteger(value)) return { error: 'A whole number is wanted.' };
      return { value };
    },
  });
  const why = useDraft({
    shown: row.note ?? '',
    read: (text) =>
      text.trim()
        ? { value: text.trim() }
        : { error: 'Say why, so that it can be understood later.' },
  });
  const error = figure.error ?? why.error;
  const take = (event: FormEvent) => {
    event.preventDefault();
    const value = flag ? 0 : figure.ask();
    const note = value === null ? null : why.ask();
    if (value === null || note === null) return;
    commit(`own ${name.toLowerCase()} on ${line.name}`, (d) => {
      const l = d.lines[line.id]!;
      l.demands = { ...l.demands, [about]: { value, note } };
    });
    onDone();
  };
  return (
    <form className="flex flex-wrap items-center gap-1.5" onSubmit={take}>
      {!flag && (
        <>
          <label className="sr-only" htmlFor={id}>
            Own {name.toLowerCase()}
          </label>
          <input
            id={id}
            className="field figure w-20 text-right"
            inputMode="decimal"
            aria-describedby={error ? `${id}-error` : undefined}
            autoFocus
            {...figure.input}
          />
          <span className="label">{unitOf(q, units)}</span>
        </>
      )}
      <label className="sr-only" htmlFor={`${id}-note`}>
        Why
      </label>
      <input
        id={`${id}-note`}
        className="field w-44"
        placeholder={flag ? 'why it is not wanted here' : 'why'}
        autoFocus={flag}
        maxLength={400}
        {...why.input}
      />
      <Button type="submit">Take it</Button>
      <Button onClick={onDone}>Leave it</Button>
      {error && <FieldFault id={`${id}-error`}>{error}</FieldFault>}
    </form>
  );
}
