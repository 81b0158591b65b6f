/** A day, typed or chosen by the browser's own calendar. */
import { useId } from 'react';

export function DateField({
  label,
  value,
  onCommit,
  hideLabel = false,
}: {
  label: string;
  /** YYYY-MM-DD, or nothing. */
  value: string;
  onCommit: (day: string) => void;
  hideLabel?: boolean;
}) {
  const id = useId();
  return (
    <span className="inline-flex flex-wrap items-center gap-x-1.5">
      <label htmlFor={id} className={hideLabel ? 'sr-only' : 'label'}>
        {label}
      </label>
      <input
        id={id}
        type="date"
        className="field"
        value={value}
        min="2000-01-01"
        max="2099-12-31"
        onChange={(e) => {
          // While it is typed the browser gives nothing, or a year of four small digits.
          const day = e.target.value;
          if (day === '' || (day >= '2000-01-01' && day <= '2099-12-31')) onCommit(day);
        }}
      />
    </span>
  );
}
