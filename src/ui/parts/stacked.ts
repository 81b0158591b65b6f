/** Tables that do not fit their room stand their rows as blocks. */
import { useEffect, useRef, useState, type RefObject } from 'react';
import { flushSync } from 'react-dom';

/**
 * Whether the rows stand as blocks of their own because the table is wider than its room: nothing is to be
 * cut off, and nobody is to scroll sideways.
 */
export function useStacked(box: RefObject<HTMLDivElement | null>, may: boolean): boolean {
  const [stacked, setStacked] = useState(false);
  /** Width that the table wants where it did not fit, px. */
  const wants = useRef(0);
  useEffect(() => {
    const el = box.current;
    if (!el || !may) return;
    const measure = () => {
      const table = el.firstElementChild;
      if (el.classList.contains('stacked')) return setStacked(el.clientWidth < wants.current);
      if (!table || table.scrollWidth <= el.clientWidth + 1) return;
      wants.current = table.scrollWidth;
      setStacked(true);
    };
    // An observer is called when the panes have their sizes: asked before, the whole step would be laid out for it,
    // and at a width that it will not have. At once, so that nobody sees it the other way.
    const watch = new ResizeObserver(() => flushSync(measure));
    watch.observe(el);
    if (el.firstElementChild) watch.observe(el.firstElementChild);
    return () => watch.disconnect();
  }, [box, may]);
  return may && stacked;
}
