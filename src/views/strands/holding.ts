/** What the bench needs of the pointer and of its room. */
import { useEffect, useRef, useState, type PointerEvent, type RefObject } from 'react';
import type { Line } from '../../core/plan/schema.js';
import { preview } from '../../session/session.js';
import { hold, moved, setHeight, STEP } from './moves.js';

/** Widest drawing, px; a narrower screen shows less of the bay at the same scale of letters. */
const WIDEST = 730;

/** Width that the drawing has, px. */
export function useWidth(): [RefObject<HTMLDivElement | null>, number] {
  const room = useRef<HTMLDivElement>(null);
  const [width, setWidth] = useState(WIDEST);
  useEffect(() => {
    const seen = new ResizeObserver(([entry]) => {
      if (entry) setWidth(Math.max(280, Math.min(WIDEST, entry.contentRect.width)));
    });
    seen.observe(room.current!);
    return () => seen.disconnect();
  }, []);
  return [room, width];
}

/** Follows a held strand; the change is made when it is let go. */
export function useDrag(
  line: Line,
  heightAt: (clientY: number) => number,
  onChoose: (i: number) => void,
) {
  const frame = useRef(0);
  const letGo = useRef<(() => void) | null>(null);
  // A bench that goes away takes its listeners along.
  useEffect(() => () => letGo.current?.(), []);
  return (i: number) => (event: PointerEvent) => {
    if (event.button !== 0) return;
    event.preventDefault();
    (event.currentTarget as SVGElement).focus();
    onChoose(i);
    const from = line.strands;
    const away = from[i]!.height_m - heightAt(event.clientY);
    let wanted = from[i]!.height_m;
    const move = (e: globalThis.PointerEvent) => {
      wanted = Math.round((heightAt(e.clientY) + away) / STEP) * STEP;
      cancelAnimationFrame(frame.current);
      frame.current = requestAnimationFrame(() => {
        const next = moved(from, i, wanted);
        hold(line, next.strands);
        onChoose(next.at);
      });
    };
    const listening = new AbortController();
    const { signal } = listening;
    letGo.current?.();
    letGo.current = () => {
      listening.abort();
      cancelAnimationFrame(frame.current);
      letGo.current = null;
    };
    const stop = (e: globalThis.PointerEvent) => {
      letGo.current?.();
      if (e.type === 'pointercancel' || Math.abs(wanted - from[i]!.height_m) < 1e-6) {
        preview(null);
        onChoose(i);
      } else onChoose(setHeight({ ...line, strands: from }, i, wanted));
    };
    addEventListener('pointermove', move, { signal });
    addEventListener('pointerup', stop, { signal });
    addEventListener('pointercancel', stop, { signal });
  };
}
