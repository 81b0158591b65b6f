import { useEffect, useMemo, useState } from 'react';
import { simplified } from '../../core/plan/simplify.js';
import { QuantityField } from '../../ui/parts/controls.js';
import { Num } from '../../ui/parts/Num.js';
import { useSketch } from './sketch.js';
import { takeWalk, useWaiting, wait } from './walk.js';
import { Button } from '../../ui/parts/Button.js';

/** What a walk becomes: the slider says how near the line keeps to it, the map shows it. */
export function WalkReview({ onDone }: { onDone: (words: string) => void }) {
  const walk = useWaiting((w) => w.walk);
  const [tolerance, setTolerance] = useState(2);
  const made = useMemo(
    () => (walk?.lines ?? []).map((l) => simplified(l.points, tolerance)),
    [walk, tolerance],
  );
  useEffect(() => {
    useSketch.setState({ shown: made.map((m) => m.points) });
    return () => useSketch.setState({ shown: [] });
  }, [made]);
  if (!walk) return null;
  const before = walk.lines.reduce((n, l) => n + l.points.length, 0);
  const after = made.reduce((n, m) => n + m.points.length, 0);
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
            {before} walked points become {after} vertices; the furthest that is dropped lies{' '}
            <Num
              value={Math.max(0, ...made.map((m) => m.furthest_m))}
              q="tape"
              from={{
                kind: 'measured',
                title: 'Furthest dropped point',
                source:
                  'Distance of each dropped point from the line that is kept (Douglas and Peucker 1973)',
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
