/** What lies under a finger that drags something: seen larger, where the finger does not cover it. */
import type OlMap from 'ol/Map.js';
import { useEffect, useRef } from 'react';
import { create } from 'zustand';

/** Where a finger drags something on the map, px; null while none does. */
export const useLens = create<{ readonly at: readonly [number, number] | null }>(() => ({
  at: null,
}));

const SIZE = 132;
const TIMES = 2;

export function Lens({ map }: { map: OlMap }) {
  const at = useLens((l) => l.at);
  const canvas = useRef<HTMLCanvasElement>(null);
  useEffect(() => {
    const to = canvas.current?.getContext('2d');
    if (!at || !to) return;
    const draw = () => {
      to.fillStyle = getComputedStyle(document.documentElement).getPropertyValue('--sheet');
      to.fillRect(0, 0, SIZE, SIZE);
      const side = SIZE / TIMES;
      for (const from of map.getTargetElement()?.querySelectorAll('canvas') ?? []) {
        const k = from.width / (from.clientWidth || 1);
        if (from.width === 0) continue;
        to.globalAlpha = Number(from.parentElement?.style.opacity || 1);
        to.drawImage(from, (at[0] - side / 2) * k, (at[1] - side / 2) * k, side * k, side * k, 0, 0, SIZE, SIZE); // prettier-ignore
      }
      to.globalAlpha = 1;
      to.strokeStyle = getComputedStyle(document.documentElement).getPropertyValue('--ink');
      to.beginPath();
      to.moveTo(SIZE / 2 - 9, SIZE / 2);
      to.lineTo(SIZE / 2 + 9, SIZE / 2);
      to.moveTo(SIZE / 2, SIZE / 2 - 9);
      to.lineTo(SIZE / 2, SIZE / 2 + 9);
      to.stroke();
    };
    draw();
    map.on('postrender', draw);
    return () => map.un('postrender', draw);
  }, [at, map]);
  if (!at) return null;
  const under = at[0] < SIZE + 40 && at[1] < SIZE + 40;
  return (
    <canvas
      ref={canvas}
      width={SIZE}
      height={SIZE}
      aria-hidden
      data-lens
      className={`border-ink pointer-events-none absolute top-2 z-10 rounded-full border-2 ${under ? 'right-2' : 'left-2'}`}
    />
  );
}
