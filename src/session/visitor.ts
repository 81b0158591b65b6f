/** Who works in this browser, and what the server lets them do. */
import { create } from 'zustand';
import type { Role } from '../formats/visitor.js';

interface Visiting {
  readonly name: string;
  readonly role: Role;
  /** The server no longer knows this browser: what is done waits here until somebody signs in. */
  readonly out: boolean;
}

export const useVisitor = create<Visiting>(() => ({ name: '', role: 'owner', out: false }));

export const signInAddress = (): string =>
  `/sign-in?to=${encodeURIComponent(location.pathname + location.search)}`;

/** Notes from an answer whether this browser is known. */
export function heardFrom(answer: { readonly status: number; readonly ok: boolean }): void {
  const out = answer.status === 401;
  if ((out || answer.ok) && useVisitor.getState().out !== out) useVisitor.setState({ out });
}

/** Why whoever works here may not change anything; null: they may. */
export const mayNot = (): string | null =>
  useVisitor.getState().role === 'reader'
    ? 'You may read this property, not change it: nothing was changed.'
    : null;
