/** Fields of lists and books: a few words, a price. */
import { useId } from 'react';
import { useDraft } from './draft.js';
import { FieldFault } from './FieldFault.js';

/** A few words that may be empty, taken on Enter or when left. */
export function WordsField({
  label,
  spoken,
  value,
  onCommit,
  max = 400,
  width = 'w-56',
}: {
  label: string;
  /** What it is called where the label alone says too little. */
  spoken?: string;
  value: string;
  onCommit: (words: string) => void;
  max?: number;
  width?: string;
}) {
  const id = useId();
  const { input } = useDraft({
    shown: value,
    read: (text) => ({ value: text.trim().slice(0, max) }),
    take: onCommit,
  });
  return (
    <span className="inline-flex flex-wrap items-center gap-x-1.5">
      {label && (
        <label htmlFor={id} className="label">
          {label}
        </label>
      )}
      <input id={id} className={`field ${width}`} aria-label={spoken} maxLength={max} {...input} />
    </span>
  );
}

/** A price of 0 or more. */
export function PriceField({
  label,
  price,
  onCommit,
}: {
  label: string;
  price: number;
  onCommit: (price: number) => void;
}) {
  const { error, input } = useDraft({
    shown: price.toFixed(2),
    read: (text) => {
      const value = Number(text.trim().replace(',', '.'));
      return text.trim() !== '' && value >= 0 && value <= 1e7
        ? { value }
        : { error: 'A price of 0 or more is wanted.' };
    },
    take: onCommit,
  });
  return (
    <span className="inline-flex flex-col items-end">
      <input
        className="field figure small w-24 text-right"
        aria-label={label}
        inputMode="decimal"
        {...input}
      />
      {error && <FieldFault>{error}</FieldFault>}
    </span>
  );
}
