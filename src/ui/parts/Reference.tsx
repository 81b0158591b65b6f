/** What the coordinates of a file are: as it was guessed, in words, and as the user says. */
import { useId } from 'react';
import { useDraft } from './draft.js';
import { FieldFault } from './FieldFault.js';
import type { Guess, Said } from './imports.js';

const kindOf = (said: Said): 'guess' | 'geographic' | 'local' | 'projected' =>
  typeof said === 'string' ? said : 'projected';

/**
 * The coordinates of a file, changed with immediate effect.
 * @param as what was taken for them; null while nothing is read
 * @param suggested a projection to begin with when one is to be named
 * @param degrees whether the file could hold degrees at all
 */
export function ReferenceFields(p: {
  what: string;
  value: Said;
  as: Guess | null;
  suggested: string;
  degrees: boolean;
  onChange: (said: Said) => void;
}) {
  const id = useId();
  const named = typeof p.value === 'object' ? p.value.projection : '';
  const { error, input } = useDraft({
    shown: named,
    read: (text) =>
      text.trim() === ''
        ? ({ error: 'Name it, such as utm 30n.' } as const)
        : ({ value: text.trim() } as const),
    take: (projection: string) => projection !== named && p.onChange({ projection }),
  });
  return (
    <div className="flex flex-wrap items-end gap-x-2 gap-y-1">
      <span className="flex flex-col">
        <label htmlFor={id} className="label">
          {p.what} counts in
        </label>
        <select
          id={id}
          className="field"
          value={kindOf(p.value)}
          onChange={(e) => {
            const kind = e.target.value as ReturnType<typeof kindOf>;
            p.onChange(kind === 'projected' ? { projection: p.suggested } : kind);
          }}
        >
          <option value="guess">as the numbers say</option>
          {p.degrees && <option value="geographic">degrees: longitude, latitude</option>}
          <option value="projected">metres of a projection</option>
          <option value="local">metres of the site itself</option>
        </select>
      </span>
      {typeof p.value === 'object' && (
        <span className="flex flex-col">
          <input
            className="field figure w-36"
            aria-label={`Projection of ${p.what.toLowerCase()}`}
            placeholder="utm 30n, or +proj=…"
            {...input}
          />
          {error && <FieldFault>{error}</FieldFault>}
        </span>
      )}
      {p.as && (
        <p role="status" className={`basis-full ${p.as.sure ? 'label' : 'text-warn'}`}>
          Taken as {p.as.words}.
        </p>
      )}
    </div>
  );
}
