/** A list or table as one stop of the Tab key: arrows go on inside it. */
import { useLayoutEffect, useRef, type KeyboardEvent, type RefObject } from 'react';

const STEPS: Record<string, number> = { ArrowDown: 1, ArrowUp: -1 };

export interface Roving<E extends HTMLElement> {
  readonly ref: RefObject<E | null>;
  onKeyDown(event: KeyboardEvent): void;
  onFocus(event: { target: EventTarget }): void;
}

/** What can be typed into keeps the arrows that it needs itself. */
const typing = (el: Element): boolean =>
  el instanceof HTMLSelectElement || (el instanceof HTMLInputElement && el.type === 'number');

/**
 * Keeps one of the items in the order of Tab, the one that had the focus last; up, down, Home and End go
 * from item to item.
 * @param items selector of the items within the element
 */
export function useRoving<E extends HTMLElement>(items: string): Roving<E> {
  const ref = useRef<E>(null);
  const last = useRef<Element | null>(null);
  const all = () =>
    [...(ref.current?.querySelectorAll<HTMLElement>(items) ?? [])].filter(
      (el) => el.getClientRects().length > 0,
    );
  const settle = () => {
    const list = all();
    if (!last.current || !list.includes(last.current as HTMLElement))
      last.current = list.find((el) => el.hasAttribute('aria-current')) ?? list[0] ?? null;
    for (const el of list) el.tabIndex = el === last.current ? 0 : -1;
  };
  // After every drawing: rows come and go.
  useLayoutEffect(settle);
  return {
    ref,
    onFocus({ target }) {
      const own = (target as Element).closest?.(items);
      if (!own || !ref.current?.contains(own)) return;
      last.current = own;
      settle();
    },
    onKeyDown(event) {
      const own = (event.target as Element).closest(items);
      if (!own || own !== event.target || typing(own) || event.altKey || event.ctrlKey) return;
      const list = all();
      const at = list.indexOf(own as HTMLElement);
      const to =
        event.key === 'Home'
          ? 0
          : event.key === 'End'
            ? list.length - 1
            : at + (STEPS[event.key] ?? 0);
      const next = list[to];
      if (!next || to === at) return;
      event.preventDefault();
      event.stopPropagation();
      next.focus();
    },
  };
}
