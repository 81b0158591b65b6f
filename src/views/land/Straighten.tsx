import { useEffect, useMemo, useState } from 'react';
import { verticesFrom } from '../../core/edit/edits.js';
import { straighten, straightened } from '../../core/edit/straighten.js';
import { furthestOff, toleranceOf } from '../../core/plan/walkFit.js';
import type { Line } from '../../core/plan/schema.js';
import { commit, refuse, useSession } from '../../session/session.js';
import { Button } from '../../ui/parts/Button.js';
import { useSketch } from './sketch.js';
import { Tolerance } from './Tolerance.js';

/** Straight runs in place of a line's many points: shown on the map before they are taken. */
export function Straighten({ line }: { line: Line }) {
  const [open, setOpen] = useState(false);
  if (line.vertices.length < 3) return null;
  return (
    <details
      className="border-rule mt-2 border-t pt-2"
      open={open}
      onToggle={(e) => setOpen(e.currentTarget.open)}
    >
      <summary className="cursor-pointer font-semibold">Straighten</summary>
      {open && <Slide key={line.id} line={line} done={() => setOpen(false)} />}
    </details>
  );
}

function Slide({ line, done }: { line: Line; done: () => void }) {
  const plan = useSession((s) => s.plan);
  const measured = useMemo(() => toleranceOf(line.vertices), [line.vertices]);
  const [chosen, setChosen] = useState<number | null>(null);
  const tolerance = chosen ?? measured;
  const points = useMemo(() => straightened(plan, line.id, tolerance), [plan, line.id, tolerance]);
  useEffect(() => {
    useSketch.setState({ shown: [points] });
    return () => useSketch.setState({ shown: [] });
  }, [points]);
  return (
    <div className="mt-2 flex flex-col gap-2">
      <Tolerance
        value={tolerance}
        measured={measured}
        walked={line.vertices.length}
        made={{
          vertices: points.length,
          corners: verticesFrom(points).filter((v) => v.kind === 'corner').length,
          furthest_m: furthestOff(line.vertices, points),
        }}
        onChange={setChosen}
      />
      <Button
        className="self-start"
        onClick={() => {
          if (line.locked) return refuse(`${line.name} is locked: unlock it first.`);
          commit(`straightened ${line.name}`, (d) => straighten(d, line.id, tolerance));
          done();
        }}
      >
        Straighten it
      </Button>
    </div>
  );
}
