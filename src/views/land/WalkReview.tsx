import { useEffect, useMemo, useState } from 'react';
import { verticesFrom } from '../../core/edit/edits.js';
import { fitWalk, furthestOff, toleranceOf } from '../../core/plan/walkFit.js';
import { QuantityField } from '../../ui/parts/controls.js';
import { Num } from '../../ui/parts/Num.js';
import { useSketch } from './sketch.js';
import { useWaiting, wait } from './waiting.js';
import { takeWalk } from './walk.js';
import { Button } from '../../ui/parts/Button.js';

/** What a walk becomes: the slider says how near the line keeps to it, the map shows it. */
export function WalkReview({ onDone }: { onDone: (words: string) => void }) {
  const walk = useWaiting((w) => w.walk);
  const lines = useMemo(() => walk?.lines ?? [], [walk]);
  // From the walk itself: how far its points lie about straight runs.
  const measured = useMemo(() => Math.max(0, ...lines.map((l) => toleranceOf(l.points))), [lines]);
  const [chosen, setTolerance] = useState<number | null>(null);
  const tolerance = chosen ?? measured;
  const made = useMemo(
    () =>
      lines.map((l) => {
        const points = fitWalk(l.points, tolerance);
        return { points, furthest_m: furthestOff(l.points, points) };
      }),
    [lines, tolerance],
  );
  useEffect(() => {
    useSketch.setState({ shown: made.map((m) => m.points) });
    return () => useSketch.setState({ shown: [] });
  }, [made]);
  if (!walk) return null;
  const before = walk.lines.reduce((n, l) => n + l.points.length, 0);
  const after = made.reduce((n, m) => n + m.points.length, 0);
  const corners = made.reduce(
    (n, m) => n + verticesFrom(m.points).filter((v) => v.kind === 'corner').length,
    0,
  );
  return (
    <div className="border-ink my-2 flex flex-col gap-2 border p-2" data-walk-review>
      <p className="font-semibold">{walk.from}</p>
      {walk.lines.length > 0 && (
        <>
          <label className="flex flex-col">
            <span className="label">Straight runs that keep within</span>
            <input
              type="range"
              min={0}
              max={20}
              step={0.1}
              value={tolerance}
              onChange={(e) => setTolerance(Number(e.target.value))}
            />
          </label>
          <QuantityField
            label="keep within"
            q="tape"
            min={0}
            max={50}
            value={tolerance}
            onCommit={setTolerance}
            width="w-16"
          />
          <p role="status">
            {before} walked points become {after} vertices, {corners} of them corners that want ends
            of their own; the furthest walked point lies{' '}
            <Num
              value={Math.max(0, ...made.map((m) => m.furthest_m))}
              q="tape"
              from={{
                kind: 'measured',
                title: 'Furthest walked point',
                source:
                  'Distance of each walked point from straight runs laid through them by total least squares',
              }}
            />{' '}
            off.
          </p>
        </>
      )}
      {walk.places.length > 0 && <p>{walk.places.length} places come with it.</p>}
      <div className="flex gap-1">
        <Button strong onClick={() => onDone(takeWalk(walk, tolerance))}>
          Bring it in
        </Button>
        <Button onClick={() => wait(null)}>Leave it</Button>
      </div>
    </div>
  );
}
