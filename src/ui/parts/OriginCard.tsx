/** Where a number comes from, and a place for the property's own figure: what opens beside the mark of a number. */
import { Popover } from 'radix-ui';
import { useEffect, useState, type FormEvent } from 'react';
import { fromField, say, toField, unitOf } from '../../core/base/units.js';
import { inUnits } from '../../core/base/prose.js';
import { figureAt, mayBeNone } from '../../core/plan/catalogue.js';
import { catalogue } from '../../core/plan/shipped.js';
import { commit, useSession } from '../../session/session.js';
import { Button } from './Button.js';
import { useDraft } from './draft.js';
import { FieldFault } from './FieldFault.js';
import { GLYPH, GLYPH_WORDS, MARK_NAMES, markOf, recordAt, type Origin, type OriginInput } from './origin.js'; // prettier-ignore
import { useUnits } from './useUnits.js';

/** The mark with what it opens, which is open at first: somebody has just pressed it. */
export function OriginCard({ origin, shown }: { origin: Origin; shown: string }) {
  return (
    <Popover.Root defaultOpen>
      <Popover.Trigger {...markOf(origin, shown)}>{GLYPH[origin.kind]}</Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          sideOffset={4}
          collisionPadding={8}
          className="bg-panel border-ink text-ink z-50 max-h-[var(--radix-popover-content-available-height)] w-80 max-w-[94vw] overflow-y-auto border p-3 font-sans text-sm whitespace-normal shadow-lg"
        >
          <Told origin={origin} />
          <Popover.Arrow className="fill-ink" />
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}

/** Where a number comes from, said in the user's units; made only once it is asked for. */
function Told({ origin }: { origin: Origin }) {
  const units = useUnits();
  return (
    <>
      <p className="label">
        {GLYPH[origin.kind]} {GLYPH_WORDS[origin.kind]}
      </p>
      <p className="font-semibold">{inUnits(origin.title, units)}</p>
      {origin.formula && (
        <p className="figure mt-1 text-xs whitespace-normal">{inUnits(origin.formula, units)}</p>
      )}
      {origin.source && <p className="label mt-1">{inUnits(origin.source, units)}</p>}
      {origin.inputs && origin.inputs.length > 0 && (
        <ul className="border-rule mt-2 space-y-2 border-t pt-2">
          {origin.inputs.map((i) => (
            <li key={i.path ?? i.name}>
              {i.path ? <CatalogueFigure input={i} path={i.path} /> : <PlainInput input={i} />}
            </li>
          ))}
        </ul>
      )}
    </>
  );
}

function PlainInput({ input }: { input: OriginInput }) {
  return (
    <span className="flex justify-between gap-3">
      <span>{inUnits(input.name, useUnits())}</span>
      <span className="figure">{input.text}</span>
    </span>
  );
}

/** Why a figure of the catalogue is what it is; empty until it is there. */
function useReason(path: string): string {
  const [reason, setReason] = useState(recordAt(catalogue, path).why ?? '');
  useEffect(() => {
    let here = true;
    const key = /^defaults\.(.+)\.value$/.exec(path)?.[1];
    if (key) void import('../../core/plan/reasons.js').then((m) => here && setReason(m.reasonOf(key) ?? ''), () => {}); // prettier-ignore
    return () => void (here = false);
  }, [path]);
  return reason;
}

/** A default with its mark, its reason, and a place to put the property's own figure. */
function CatalogueFigure({ input, path }: { input: OriginInput; path: string }) {
  const units = useUnits();
  const own = useSession((s) => s.plan.overrides[path]);
  const usual = figureAt(catalogue, path) ?? NaN;
  const { mark, unit } = recordAt(catalogue, path);
  const why = useReason(path);
  const q = input.quantity;
  const [open, setOpen] = useState(false);
  const value = own?.value ?? usual;
  const shown = (v: number) => (q ? say(v, q, units) : `${v}${unit ? ` ${unit}` : ''}`);
  return (
    <div>
      <PlainInput input={{ name: input.name, text: shown(value) }} />
      <p className="label">
        {own
          ? `this property's own${own.note ? `: ${own.note}` : ''}; usual ${shown(usual)}`
          : `default, ${MARK_NAMES[mark] ?? mark}`}
        . {inUnits(why, units)}
      </p>
      {!open ? (
        <span className="mt-1 flex gap-2">
          <button className="label cursor-pointer underline" onClick={() => setOpen(true)}>
            put my own figure in
          </button>
          {own && (
            <button
              className="label cursor-pointer underline"
              onClick={() =>
                commit(`usual figure for ${input.name}`, (draft) => {
                  delete draft.overrides[path];
                })
              }
            >
              back to the default
            </button>
          )}
        </span>
      ) : (
        <OwnFigure
          input={input}
          path={path}
          value={value}
          unit={unit}
          onDone={() => setOpen(false)}
        />
      )}
    </div>
  );
}

/** Where the property's own figure is typed; taken by Enter or its button, even when it is the usual one. */
function OwnFigure({
  input: { name, quantity: q },
  path,
  value,
  unit,
  onDone,
}: {
  input: OriginInput;
  path: string;
  value: number;
  unit: string | undefined;
  onDone: () => void;
}) {
  const units = useUnits();
  const id = `own-${path}`;
  const { input, error, ask } = useDraft<number>({
    shown: q ? toField(value, q, units) : String(value),
    read: (text) => {
      const typed = q ? fromField(text, q, units) : Number(text.replace(',', '.'));
      if (typed === 0 && mayBeNone(path)) return { value: 0 };
      return typed > 0 ? { value: typed } : { error: 'A number above 0 is wanted.' };
    },
  });
  const take = (event: FormEvent) => {
    event.preventDefault();
    const typed = ask();
    if (typed === null) return;
    commit(`own figure for ${name}`, (draft) => {
      draft.overrides[path] = { value: typed };
    });
    onDone();
  };
  return (
    <form className="mt-1 flex flex-wrap items-center gap-2" onSubmit={take}>
      <label className="sr-only" htmlFor={id}>
        Own figure for {name}
      </label>
      <input id={id} className="field figure w-24" autoFocus {...input} />
      <span className="label">{q ? unitOf(q, units) : unit}</span>
      <Button type="submit">Take it</Button>
      {error && <FieldFault>{error}</FieldFault>}
    </form>
  );
}
