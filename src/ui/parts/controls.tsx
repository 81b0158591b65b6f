/** Small shared controls: typed quantities, choices, sections. */
import { Toggle } from 'radix-ui';
import { useId, type ReactNode } from 'react';
import { fromField, say, toField, unitOf, type Quantity } from '../../core/base/units.js';
import { limitsAt, type Limits } from '../../core/plan/limits.js';
import { FieldFault } from './FieldFault.js';
import { useDraft } from './draft.js';
import { useUnits } from './Num.js';

interface QuantityFieldProps {
  readonly label: string;
  readonly value: number;
  readonly q: Quantity;
  /** Where in the plan it stands: the limits of the schema hold (limits.ts). */
  readonly at?: string;
  /** Limits of its own, or narrower ones than the schema's, SI. */
  readonly min?: number;
  readonly max?: number;
  /** Called with SI, only for values within the limits. */
  readonly onCommit: (si: number) => void;
  readonly hideLabel?: boolean;
  readonly width?: string;
  readonly whole?: boolean;
  /** Leaves the unit to a table's heading. */
  readonly hideUnit?: boolean;
}

/**
 * A typed quantity in the user's unit. Taken on Enter or when left; what is out of its limits stays
 * in the field with the reason beside it, and the plan stays as it was.
 */
export function QuantityField(p: QuantityFieldProps) {
  const units = useUnits();
  const id = useId();
  const { error, input } = useDraft({
    // Without a value the field is empty: several things may differ in it.
    shown: Number.isNaN(p.value) ? '' : toField(p.value, p.q, units),
    read: (text) => {
      const value = fromField(text, p.q, units);
      const fault = faultOf(value, p.label, p.q, limitsOf(p), units);
      return fault === null ? { value } : { error: fault };
    },
    take: p.onCommit,
  });
  return (
    <span className="inline-flex flex-wrap items-center gap-x-1.5">
      <label htmlFor={id} className={p.hideLabel ? 'sr-only' : 'label'}>
        {p.label}
      </label>
      <input
        id={id}
        className={`field figure text-right ${p.width ?? 'w-20'}`}
        inputMode="decimal"
        aria-describedby={error ? `${id}-error` : undefined}
        {...input}
      />
      {!p.hideUnit && <span className="label">{unitOf(p.q, units)}</span>}
      {error && <FieldFault id={`${id}-error`}>{error}</FieldFault>}
    </span>
  );
}

/** A name, taken on Enter or when left; an empty one is not taken. */
export function NameField({
  name,
  label,
  onCommit,
  width = 'min-w-0 flex-1',
}: {
  name: string;
  label: string;
  onCommit: (name: string) => void;
  width?: string;
}) {
  const { input } = useDraft({
    shown: name,
    read: (text) => ({ value: text.trim().slice(0, 80) }),
    take: (clean) => clean && clean !== name && onCommit(clean),
  });
  return (
    <input
      className={`field font-semibold ${width}`}
      aria-label={label}
      maxLength={80}
      {...input}
    />
  );
}

/** A tick box with its words. */
export function Check({
  label,
  spoken,
  checked,
  onChange,
  disabled = false,
  hideLabel = false,
}: {
  label: ReactNode;
  /** What it is called where the label alone says too little. */
  spoken?: string;
  checked: boolean;
  onChange: (checked: boolean) => void;
  disabled?: boolean;
  hideLabel?: boolean;
}) {
  return (
    <label className="inline-flex items-center gap-1.5">
      <input
        type="checkbox"
        className="size-4"
        checked={checked}
        disabled={disabled}
        aria-label={spoken}
        onChange={(event) => onChange(event.target.checked)}
      />
      <span className={hideLabel ? 'sr-only' : ''}>{label}</span>
    </label>
  );
}

/** The narrower of the schema's limits and the field's own. */
function limitsOf({
  at,
  min = -Infinity,
  max = Infinity,
  whole = false,
}: QuantityFieldProps): Limits {
  if (at === undefined) return { min, max, whole };
  const own = limitsAt(at);
  return {
    min: Math.max(min, own.min),
    max: Math.min(max, own.max),
    whole: whole || own.whole,
  };
}

function faultOf(
  si: number,
  label: string,
  q: Quantity,
  { min, max, whole }: Limits,
  units: ReturnType<typeof useUnits>,
): string | null {
  if (Number.isNaN(si)) return `${label}: a number is wanted.`;
  if (whole && !Number.isInteger(si)) return `${label}: a whole number is wanted.`;
  if (si < min - 1e-9) return `${label}: at least ${say(min, q, units)}.`;
  if (si > max + 1e-9) return `${label}: at most ${say(max, q, units)}.`;
  return null;
}

/** East and north of a thing, typed. */
export function PlaceFields({
  at,
  onMove,
}: {
  at: { readonly e: number; readonly n: number };
  onMove: (e: number, n: number) => void;
}) {
  const field = { q: 'tape', min: -1e6, max: 1e6, width: 'w-24' } as const;
  return (
    <>
      <QuantityField {...field} label="East" value={at.e} onCommit={(e) => onMove(e, at.n)} />
      <QuantityField {...field} label="North" value={at.n} onCommit={(n) => onMove(at.e, n)} />
    </>
  );
}

interface ChoiceProps<T extends string> {
  readonly label: string;
  readonly value: T;
  readonly options: readonly (readonly [T, string])[];
  readonly onChange: (value: T) => void;
  readonly title?: string;
}

/** A few exclusive choices side by side. */
export function Choice<T extends string>({
  label,
  value,
  options,
  onChange,
  title,
}: ChoiceProps<T>) {
  return (
    <div role="group" aria-label={label} title={title} className="inline-flex">
      {options.map(([key, name]) => (
        <Toggle.Root
          key={key}
          pressed={key === value}
          className="button -ml-px !rounded-none first:!rounded-l-[3px] last:!rounded-r-[3px]"
          onPressedChange={() => onChange(key)}
        >
          {name}
        </Toggle.Root>
      ))}
    </div>
  );
}

/** A labelled drop-down. */
export function Select<T extends string>({
  label,
  value,
  options,
  onChange,
  hideLabel = false,
  width = 'max-w-[170px]',
}: ChoiceProps<T> & { readonly hideLabel?: boolean; readonly width?: string }) {
  const id = useId();
  return (
    <span className="inline-flex items-center gap-1.5">
      <label htmlFor={id} className={hideLabel ? 'sr-only' : 'label'}>
        {label}
      </label>
      <select
        id={id}
        className={`field ${width}`}
        value={value}
        onChange={(e) => onChange(e.target.value as T)}
      >
        {options.map(([key, name]) => (
          <option key={key} value={key}>
            {name}
          </option>
        ))}
      </select>
    </span>
  );
}

/** A titled part of a screen. */
export function Part({
  title,
  children,
  aside,
}: {
  title: string;
  children: ReactNode;
  aside?: ReactNode;
}) {
  return (
    <section className="mb-7" aria-label={title}>
      <div className="border-ink mb-2 flex flex-wrap items-baseline justify-between gap-2 border-b pb-1">
        <h2 className="heading">{title}</h2>
        {aside}
      </div>
      {children}
    </section>
  );
}

/** A caution: what can hurt, and who to ask. */
export function Caution({ children }: { children: ReactNode }) {
  return (
    <p className="border-warn my-2 border-l-4 py-0.5 pl-2 text-[0.929rem]">
      <strong className="text-warn">Care. </strong>
      {children}
    </p>
  );
}
