/** What is being typed into a field, until it is taken: on Enter or when the field is left. */
import { useState, type KeyboardEvent } from 'react';
import { redo, undo } from '../../session/session.js';

export interface DraftOptions<V> {
  /** The text of what the plan holds now. */
  readonly shown: string;
  /** The value of a text, or what is wrong with it. */
  read(text: string): { readonly value: V } | { readonly error: string };
  /** Called for a text that differs from what was shown and has a value. */
  take?(value: V): void;
}

/**
 * The state of one typed field, with what its input needs. What cannot be taken stays in the field with
 * the reason; when the plan changes underneath, the field shows the plan again. Without `take` nothing is
 * taken when it is left: the form around it asks.
 */
export function useDraft<V>({ shown, read, take }: DraftOptions<V>) {
  const [draft, setDraft] = useState({ of: shown, text: shown, error: null as string | null });
  // What was typed belongs to what was shown then.
  const { text, error } = draft.of === shown ? draft : { text: shown, error: null };
  const put = (next: string, fault: string | null) =>
    setDraft({ of: shown, text: next, error: fault });
  const done = () => {
    if (!take) return;
    if (text === shown) return put(shown, null);
    const found = read(text);
    if ('error' in found) return put(text, found.error);
    put(shown, null);
    take(found.value);
  };
  return {
    error,
    /** The value of what is typed; null, with the reason beside the field, when it has none. */
    ask(): V | null {
      const found = read(text);
      put(text, 'error' in found ? found.error : null);
      return 'error' in found ? null : found.value;
    },
    input: {
      value: text,
      'aria-invalid': error !== null,
      onChange: (event: { target: { value: string } }) => put(event.target.value, null),
      onBlur: done,
      onKeyDown: (event: KeyboardEvent) => {
        if (event.key === 'Enter') done();
        // With nothing typed and not yet taken, the field has no history of its own to go back in: what the
        // browser would bring back is not what the plan holds.
        const z = event.key.toLowerCase() === 'z' && (event.ctrlKey || event.metaKey);
        if (z && text === shown) {
          event.preventDefault();
          (event.shiftKey ? redo : undo)();
        }
        if (event.key === 'Escape') put(shown, null);
      },
    },
  };
}
