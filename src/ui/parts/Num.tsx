/** A number as every screen shows it: figure, unit, and where it comes from. */
import { Popover } from 'radix-ui';
import { useEffect, useState, type FormEvent } from 'react';
import {
  figureText,
  fromField,
  inFeet,
  say,
  toField,
  unitOf,
  type Quantity,
  type Units,
} from '../../core/base/units.js';
import { inUnits } from '../../core/base/prose.js';
import { figureAt, mayBeNone, type Catalogue } from '../../core/plan/catalogue.js';
import { catalogue } from '../../core/plan/shipped.js';
import { FieldFault } from './FieldFault.js';
import { useDraft } from './draft.js';
import { commit, useSession } from '../../session/session.js';
import { Button } from './Button.js';

/** One input of a formula: a catalogue figure by path, or a value with its own text. */
export interface OriginInput {
  readonly name: string;
  readonly text?: string;
  /** Catalogue path `table.record.field`; can be replaced for the property. */
  readonly path?: string;
  readonly quantity?: Quantity;
}

export interface Origin {
  readonly kind: 'formula' | 'default' | 'measured';
  readonly title: string;
  readonly formula?: string;
  readonly source?: string;
  readonly inputs?: readonly OriginInput[];
}

/** What the marks of the catalogue are called. */
export const MARK_NAMES: Record<string, string> = {
  published: 'published',
  practice: 'common practice',
  memory: 'from memory',
  derived: 'derived here',
  assumed: 'assumed',
  invented: 'invented',
};

const GLYPH = { formula: 'ƒ', default: '◇', measured: '●' } as const;
const GLYPH_WORDS = {
  formula: 'worked out',
  default: 'a default',
  measured: 'measured on the drawing',
} as const;

export const useUnits = (): Units => useSession((s) => s.plan.units);

interface NumProps {
  readonly value: number | null | undefined;
  readonly q: Quantity;
  readonly from?: Origin;
  readonly className?: string;
  readonly bare?: boolean;
}

/** Figure and unit; with `from`, a small mark beside it opens where the number comes from. */
export function Num({ value, q, from, className = '', bare = false }: NumProps) {
  const units = useUnits();
  if (value === null || value === undefined) return <span className={className}>–</span>;
  // Feet and inches bring their units along.
  const unit = inFeet(q, units) ? '' : unitOf(q, units);
  return (
    <span className={`whitespace-nowrap ${className}`}>
      <span className="figure">{figureText(value, q, units)}</span>
      {!bare && unit !== '' && (
        <span className="text-[0.92em]">{unit === '°' ? unit : `\u00a0${unit}`}</span>
      )}
      {from && <WhereFrom origin={from} shown={say(value, q, units)} />}
    </span>
  );
}

/** What is measured on the drawing itself. */
export const MEASURED: Origin = {
  kind: 'measured',
  title: 'Measured on the drawing',
  source:
    'Local metres; bearings from grid north; over ground: sum of sqrt(ds² + dz²), at every change of slope',
};

/** The mark that opens the origin of a number. */
export function WhereFrom({ origin, shown }: { origin: Origin; shown: string }) {
  return (
    <Popover.Root>
      <Popover.Trigger
        className="text-soft hover:text-ink ml-0.5 inline-grid size-[18px] cursor-pointer place-items-center rounded-full align-super text-[0.714rem] leading-none"
        aria-label={`Where ${shown} comes from: ${GLYPH_WORDS[origin.kind]}`}
        title={GLYPH_WORDS[origin.kind]}
      >
        {GLYPH[origin.kind]}
      </Popover.Trigger>
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

/** Mark and reason of a catalogue figure. */
export function recordAt(
  cat: Catalogue,
  path: string,
): { mark: string; why?: string; unit?: string } {
  const first = path.indexOf('.');
  const last = path.lastIndexOf('.');
  const table = (
    cat as Record<string, Record<string, { mark: string; why?: string; unit?: string }>>
  )[path.slice(0, first)];
  return table?.[path.slice(first + 1, last)] ?? { mark: 'assumed' };
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
