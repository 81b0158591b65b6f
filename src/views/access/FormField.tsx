/** A labelled input of a form that is sent as a whole, with what was refused of it. */
import { useId, type InputHTMLAttributes, type ReactNode } from 'react';
import { sentence } from '../../core/base/words.js';
import type { Refusal } from '../../ui/parts/ask.js';
import { FieldFault } from '../../ui/parts/FieldFault.js';

interface Props extends InputHTMLAttributes<HTMLInputElement> {
  readonly label: string;
  /** What of the form was refused; shown here where it is about this field. */
  readonly refused?: Refusal | null;
}

export function FormField({ label, refused, className = 'w-56', ...input }: Props) {
  const id = useId();
  const mine = refused?.place === `/${input.name}` ? refused : null;
  const told = mine ? { 'aria-invalid': true, 'aria-describedby': `${id}-fault` } : {};
  return (
    <p>
      <label htmlFor={id} className="label block">{label}</label>
      <input id={id} autoComplete="off" required className={`field ${className}`} {...told} {...input} />
      {mine && <span className="block max-w-72"><FieldFault id={`${id}-fault`}>{sentence(mine.reason)}</FieldFault></span>}
    </p>
  );
} // prettier-ignore

/** A pass phrase that is to be: shown while it is typed. */
export function NewPhrase(props: Props) {
  return (
    <FormField
      name="phrase"
      className="w-72 max-w-full"
      spellCheck={false}
      minLength={12}
      maxLength={200}
      {...props}
      label={`${props.label}, 12 characters or more`}
    />
  );
}

/** What stands level with the inputs beside it, whatever is said below them. */
export const LevelWithFields = ({ children }: { children: ReactNode }) => (
  <div>
    <span className="label block" aria-hidden>&nbsp;</span>
    {children}
  </div>
); // prettier-ignore

/** What was refused that no field of the form shows. */
export function FormFault({ refused, fields }: { refused: Refusal | null; fields: readonly string[] }) {
  if (!refused || fields.some((name) => refused.place === `/${name}`)) return null;
  return <p role="alert" className="text-stop">{sentence(refused.reason)}</p>;
} // prettier-ignore
