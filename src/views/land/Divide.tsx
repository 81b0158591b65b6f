import { useEffect, useState } from 'react';
import { addLine } from '../../core/edit/edits.js';
import { bearing as bearingOf } from '../../core/plan/geometry.js';
import { divideFace } from '../../core/land/divide.js';
import type { Point } from '../../core/plan/schema.js';
import type { PaddockReport } from '../../core/report/schema.js';
import { QuantityField } from '../../ui/parts/controls.js';
import { Num } from '../../ui/parts/Num.js';
import { commit } from '../../session/session.js';
import { chooseLine } from '../../session/view.js';
import { useSketch } from './sketch.js';
import { AREA } from './areaOrigin.js';
import { Button } from '../../ui/parts/Button.js';

/** A fence through a paddock: slid or typed to an area, shown on the map before it is put down. */
export function Divide({ paddock }: { paddock: PaddockReport }) {
  const [open, setOpen] = useState(false);
  return (
    <details open={open} onToggle={(e) => setOpen(e.currentTarget.open)}>
      <summary className="cursor-pointer font-semibold">Divide it</summary>
      {open && <Slide paddock={paddock} />}
    </details>
  );
}

/** Across the longest way through a paddock, to begin with. */
function acrossBearing(rim: readonly (readonly [number, number])[]): number {
  let best = { d: 0, deg: 0 };
  for (const a of rim) {
    for (const b of rim) {
      const d = Math.hypot(b[0] - a[0], b[1] - a[1]);
      if (d > best.d) best = { d, deg: bearingOf({ e: a[0], n: a[1] }, { e: b[0], n: b[1] }) };
    }
  }
  return Math.round(best.deg + 90) % 180;
}

function Slide({ paddock }: { paddock: PaddockReport }) {
  const [bearing, setBearing] = useState(() => acrossBearing(paddock.rim));
  const [left, setLeft] = useState(paddock.area_m2 / 2);
  const ring = (list: readonly (readonly [number, number])[]) => list.map(([e, n]) => ({ e, n }));
  const face = {
    rim: ring(paddock.rim),
    holes: paddock.holes.map(ring),
    area_m2: paddock.area_m2,
    perimeter_m: paddock.perimeter_m,
    edges: [],
  };
  const cut = divideFace(face, bearing, left);
  const key = JSON.stringify(cut.fences);
  useEffect(() => {
    useSketch.setState({ shown: JSON.parse(key) as readonly (readonly Point[])[] });
    return () => useSketch.setState({ shown: [] });
  }, [key]);
  return (
    <div className="mt-1 flex flex-col gap-2">
      <label className="flex flex-col">
        <span className="label">Slide the fence</span>
        <input
          type="range"
          min={0}
          max={1000}
          value={Math.round((left / paddock.area_m2) * 1000)}
          onChange={(e) => setLeft((Number(e.target.value) / 1000) * paddock.area_m2)}
        />
      </label>
      <QuantityField
        label="Its bearing"
        q="degree"
        min={0}
        max={360}
        width="w-14"
        value={bearing}
        onCommit={setBearing}
      />
      <QuantityField
        label="Area on its left"
        q="area"
        min={0}
        max={paddock.area_m2}
        width="w-20"
        value={left}
        onCommit={setLeft}
      />
      <p>
        Left <Num value={cut.left_m2} q="area" from={AREA} />, right{' '}
        <Num value={cut.right_m2} q="area" from={AREA} />
      </p>
      <div className="flex gap-1">
        <Button onClick={() => setLeft(paddock.area_m2 / 2)}>Halves</Button>
        <Button
          strong
          disabled={cut.fences.length === 0}
          onClick={() => {
            let last = '';
            commit(`divided ${paddock.name}`, (d) => {
              for (const fence of cut.fences) last = addLine(d, fence, `Across ${paddock.name}`);
            });
            chooseLine(last);
          }}
        >
          Put the fence
        </Button>
      </div>
    </div>
  );
}
