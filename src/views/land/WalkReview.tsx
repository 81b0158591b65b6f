import { useEffect, useMemo, useState } from 'react';
import type { Waypoint } from '../../core/edit/bring.js';
import { verticesFrom } from '../../core/edit/edits.js';
import { fitWalk, furthestOff, toleranceOf } from '../../core/plan/walkFit.js';
import { Button } from '../../ui/parts/Button.js';
import { useSketch } from './sketch.js';
import { Tolerance } from './Tolerance.js';
import { useWaiting, wait } from './waiting.js';
import { takeWalk } from './walk.js';
import { understood, Waypoints } from './Waypoints.js';

/** What a walk becomes: the slider says how near the line keeps to it, the map shows both. */
export function WalkReview({ onDone }: { onDone: (words: string) => void }) {
  const walk = useWaiting((w) => w.walk);
  const lines = useMemo(() => walk?.lines ?? [], [walk]);
  // From the walk itself: how far its points lie about straight runs.
  const measured = useMemo(() => Math.max(0, ...lines.map((l) => toleranceOf(l.points))), [lines]);
  const [chosen, setTolerance] = useState<number | null>(null);
  const [named, setNamed] = useState<{ of: typeof walk; places: Waypoint[] } | null>(null);
  const tolerance = chosen ?? measured;
  const places = named && named.of === walk ? named.places : understood(walk?.places ?? []);
  const made = useMemo(
    () =>
      lines.map((l) => {
        const points = fitWalk(l.points, tolerance);
        return { points, furthest_m: furthestOff(l.points, points) };
      }),
    [lines, tolerance],
  );
  const spots = JSON.stringify(places.filter((p) => p.kind === null));
  useEffect(() => {
    useSketch.setState({
      shown: made.map((m) => m.points),
      walked: lines.map((l) => l.points),
      spots: (JSON.parse(spots) as Waypoint[]).map((p) => ({ name: p.name, at: p.points[0]! })),
    });
    return () => useSketch.setState({ shown: [], walked: [], spots: [] });
  }, [made, lines, spots]);
  if (!walk) return null;
  return (
    <div className="border-ink my-2 flex flex-col gap-2 border p-2" data-walk-review>
      <p className="font-semibold">{walk.from}</p>
      {walk.lines.length > 0 && (
        <Tolerance
          value={tolerance}
          measured={measured}
          walked={walk.lines.reduce((n, l) => n + l.points.length, 0)}
          made={{
            vertices: made.reduce((n, m) => n + m.points.length, 0),
            corners: made.reduce(
              (n, m) => n + verticesFrom(m.points).filter((v) => v.kind === 'corner').length,
              0,
            ),
            furthest_m: Math.max(0, ...made.map((m) => m.furthest_m)),
          }}
          onChange={setTolerance}
        />
      )}
      <Waypoints places={places} onChange={(list) => setNamed({ of: walk, places: list })} />
      <div className="flex gap-1">
        <Button strong onClick={() => onDone(takeWalk({ ...walk, places }, tolerance))}>
          Bring it in
        </Button>
        <Button onClick={() => wait(null)}>Leave it</Button>
      </div>
    </div>
  );
}
