import { useEffect, useState } from 'react';

/** A price, taken on Enter or when left; nothing below zero. */
export function PriceField({
  name,
  price,
  onCommit,
}: {
  name: string;
  price: number;
  onCommit: (price: number) => void;
}) {
  const [text, setText] = useState(price.toFixed(2));
  const [error, setError] = useState(false);
  useEffect(() => {
    setText(price.toFixed(2));
    setError(false);
  }, [price]);
  const take = () => {
    const value = Number(text.trim().replace(',', '.'));
    const bad = text.trim() === '' || !(value >= 0) || value > 1e7;
    setError(bad);
    if (!bad && value !== price) onCommit(value);
  };
  return (
    <span className="inline-flex flex-col items-end">
      <input
        className="field figure !min-h-7 w-24 text-right"
        aria-label={`Price of ${name}`}
        inputMode="decimal"
        value={text}
        aria-invalid={error}
        onChange={(event) => setText(event.target.value)}
        onBlur={take}
        onKeyDown={(event) => event.key === 'Enter' && take()}
      />
      {error && (
        <span role="alert" className="text-live text-xs">
          A price of 0 or more is wanted.
        </span>
      )}
    </span>
  );
}
