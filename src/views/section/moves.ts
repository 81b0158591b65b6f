/** How the section is read and moved: wheel, drag and keys. */
import { useEffect, useRef, type PointerEvent, type RefObject } from 'react';
import type { Line } from '../../core/plan/schema.js';
import type { LineReport } from '../../core/report/schema.js';
import { look } from '../../session/view.js';
import type { Scale } from './frame.js';
import { postNear, togglePin } from './PostCard.js';

/** Least part of a line that the section zooms into, m. */
const CLOSEST = 8;

/** Looks at a part of a line, held to it. */
export function lookAt(from: number, to: number, total: number): void {
  const span = Math.min(total, Math.max(CLOSEST, to - from));
  if (span >= total - 1e-6) return look({ window: null });
  const start = Math.min(Math.max(0, from), total - span);
  look({ window: [start, start + span] });
}

/** The wheel looks closer about the pointer; listened to directly, since the page must not scroll. */
export function useZoomWheel(svg: RefObject<SVGSVGElement | null>, x: Scale, total: number): void {
  useEffect(() => {
    const target = svg.current;
    if (!target) return;
    const wheel = (event: WheelEvent) => {
      event.preventDefault();
      const s = x.invert(event.clientX - target.getBoundingClientRect().left);
      const [from, to] = x.domain() as [number, number];
      const factor = Math.exp(event.deltaY / 400);
      lookAt(s - (s - from) * factor, s + (to - s) * factor, total);
    };
    target.addEventListener('wheel', wheel, { passive: false });
    return () => target.removeEventListener('wheel', wheel);
  });
}

/** Moving over the strip reads it; dragging pans it when it is zoomed. */
export function useDragPan(x: Scale, total: number) {
  const held = useRef<{ clientX: number; domain: [number, number] } | null>(null);
  const place = (event: PointerEvent) => {
    const left = event.currentTarget.getBoundingClientRect().left;
    return Math.min(total, Math.max(0, x.invert(event.clientX - left)));
  };
  return {
    onPointerDown: (event: PointerEvent) => {
      look({ cursor: place(event) });
      const domain = x.domain() as [number, number];
      if (domain[1] - domain[0] >= total - 1e-6) return;
      held.current = { clientX: event.clientX, domain };
      event.currentTarget.setPointerCapture(event.pointerId);
    },
    onPointerMove: (event: PointerEvent) => {
      const from = held.current;
      if (!from) return look({ cursor: place(event) });
      const [a, b] = from.domain;
      const perPixel = (b - a) / (x.range()[1]! - x.range()[0]!);
      const by = (from.clientX - event.clientX) * perPixel;
      if (Math.abs(from.clientX - event.clientX) > 3) lookAt(a + by, b + by, total);
    },
    onPointerUp: () => void (held.current = null),
    onPointerCancel: () => void (held.current = null),
  };
}

/** What the keys do on the strip; false for a key that it leaves alone. */
export function keysOf(
  line: Line,
  report: LineReport,
  cursor: number | null,
  [from, to]: [number, number],
  zoom: (factor: number) => void,
) {
  const total = report.plan_m;
  const go = (s: number) => {
    look({ cursor: s });
    if (s < from || s > to) lookAt(s - (to - from) / 2, s + (to - from) / 2, total);
  };
  const step = (by: 1 | -1) => {
    const at = cursor ?? 0;
    const posts = report.posts.map((p) => p.s_m);
    const next = by > 0 ? posts.find((s) => s > at + 0.01) : posts.findLast((s) => s < at - 0.01);
    go(next ?? (by > 0 ? total : 0));
  };
  return (key: string): boolean => {
    if (key === 'ArrowRight') step(1);
    else if (key === 'ArrowLeft') step(-1);
    else if (key === 'Home') go(0);
    else if (key === 'End') go(total);
    else if (key === '+' || key === '=') zoom(2);
    else if (key === '-') zoom(0.5);
    else if (key === '0') look({ window: null });
    else if (key.toLowerCase() === 'p') {
      const rank = postNear(report.posts, cursor);
      const post = rank === null ? undefined : report.posts[rank];
      if (!post || post.role !== 'line') return false;
      togglePin(line, post);
    } else return false;
    return true;
  };
}
