/** A list or table as one stop of the Tab key: arrows go on inside it. */
import { useLayoutEffect, useRef, type KeyboardEvent, type RefObject } from 'react';

export interface Roving<E extends HTMLElement> {
  readonly ref: RefObject<E | null>;
  onKeyDown(event: KeyboardEvent): void;
  onFocus(event: { target: EventTarget }): void;
}

interface Options {
  /** Selector of the rows of a table: up and down then keep to the column. */
  readonly rows?: string;
  /** It scrolls: without an item that takes the focus it takes it itself. */
  readonly scrolls?: boolean;
}

/** Within something folded: told without asking the browser where anything lies, at every drawing. */
function foldedAway(el: Element): boolean {
  const fold = el.closest('details:not([open])');
  return fold !== null && !(el.tagName === 'SUMMARY' && el.parentElement === fold);
}

/** A drop-down needs up and down itself, typed text left, right, Home and End. */
const keeps = (el: Element, key: string): boolean =>
  el instanceof HTMLSelectElement
    ? key === 'ArrowUp' || key === 'ArrowDown'
    : el instanceof HTMLInputElement && !['checkbox', 'radio', 'button'].includes(el.type)
      ? key !== 'ArrowUp' && key !== 'ArrowDown'
      : false;

/**
 * Keeps one of the items in the order of Tab: the one that had the focus last, else the chosen one, else the
 * first. Arrows, Home and End go from item to item.
 * @param items selector of the items within the element
 */
export function useRoving<E extends HTMLElement>(
  items: string,
  { rows, scrolls = false }: Options = {},
): Roving<E> {
  const ref = useRef<E>(null);
  const last = useRef<HTMLElement | null>(null);
  const seen = (within: ParentNode | null | undefined) =>
    [...(within?.querySelectorAll<HTMLElement>(items) ?? [])].filter((el) => !foldedAway(el));
  const settle = () => {
    const list = seen(ref.current);
    if (!last.current || !list.includes(last.current))
      last.current =
        list.find((el) => el.closest('[aria-current]:not([aria-current="false"])')) ??
        list[0] ??
        null;
    for (const el of list) el.tabIndex = el === last.current ? 0 : -1;
    if (scrolls && ref.current) ref.current.tabIndex = list.length === 0 ? 0 : -1;
  };
  // After every drawing: rows come and go.
  useLayoutEffect(settle);

  const target = (own: HTMLElement, key: string): HTMLElement | undefined => {
    const list = seen(ref.current);
    const at = list.indexOf(own);
    if (key === 'Home') return list[0];
    if (key === 'End') return list.at(-1);
    if (!rows) return { ArrowDown: list[at + 1], ArrowUp: list[at - 1] }[key];
    if (key === 'ArrowLeft') return list[at - 1];
    if (key === 'ArrowRight') return list[at + 1];
    if (key !== 'ArrowDown' && key !== 'ArrowUp') return undefined;
    const all = [...(ref.current?.querySelectorAll(rows) ?? [])];
    const row = own.closest(rows);
    const column = seen(row).indexOf(own);
    const step = key === 'ArrowDown' ? 1 : -1;
    for (let k = all.indexOf(row!) + step; k >= 0 && k < all.length; k += step) {
      const there = seen(all[k]);
      if (there.length > 0) return there[Math.min(column, there.length - 1)];
    }
    return undefined;
  };

  return {
    ref,
    onFocus(event) {
      const own = (event.target as Element).closest<HTMLElement>(items);
      if (!own || !ref.current?.contains(own)) return;
      last.current = own;
      settle();
    },
    onKeyDown(event) {
      const own = (event.target as Element).closest<HTMLElement>(items);
      if (!own || own !== event.target || !ref.current?.contains(own)) return;
      if (event.altKey || event.ctrlKey || event.metaKey || keeps(own, event.key)) return;
      const next = target(own, event.key);
      if (!next || next === own) return;
      event.preventDefault();
      event.stopPropagation();
      next.focus();
    },
  };
}
