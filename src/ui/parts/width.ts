/** How wide a drawing has room to be, px: drawn in that, its words keep their size on any screen. */
import { useLayoutEffect, useRef, useState, type RefObject } from 'react';

/**
 * @param usual until it is measured, and where nothing measures
 * @returns what measures it, and its width
 */
export function useWidth<T extends HTMLElement>(
  usual: number,
): readonly [RefObject<T | null>, number] {
  const ref = useRef<T>(null);
  const [width, setWidth] = useState(usual);
  useLayoutEffect(() => {
    const element = ref.current;
    if (!element) return;
    const measure = () => setWidth(element.clientWidth || usual);
    measure();
    const watch = new ResizeObserver(measure);
    watch.observe(element);
    return () => watch.disconnect();
  }, [usual]);
  return [ref, width];
}
