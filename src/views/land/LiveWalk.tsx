import { Footprints } from 'lucide-react';
import { useEffect, useRef, useState } from 'react';
import type { Point } from '../../core/plan/schema.js';
import { stations } from '../../core/plan/geometry.js';
import { converter } from '../../formats/projection.js';
import { deviceReceiver, simulatedReceiver, type Fix } from '../../ui/devices/positioning.js';
import { Choice } from '../../ui/parts/controls.js';
import { MEASURED, Num } from '../../ui/parts/Num.js';
import { useSession } from '../../session/session.js';
import { useSketch } from './sketch.js';
import { wait } from './walk.js';

/** Fixes worse than this are not walked on, m. */
const WORST = 25;

/** Walks a line with a receiver; what was walked stays in this browser until it is taken or let go. */
export function LiveWalk() {
  const id = useSession((s) => s.id);
  const origin = useSession((s) => s.plan.origin);
  const key = `anabatic.walk.${id}`;
  const [source, setSource] = useState<'device' | 'simulated'>('device');
  const [points, setPoints] = useState<Point[]>(() => stored(key));
  const [accuracy, setAccuracy] = useState<number | null>(null);
  const [fault, setFault] = useState<string | null>(null);
  const stop = useRef<(() => void) | null>(null);
  const [walking, setWalking] = useState(false);
  useEffect(() => () => stop.current?.(), []);
  useEffect(() => {
    if (points.length > 0) localStorage.setItem(key, JSON.stringify(points));
    if (walking) useSketch.setState({ shown: [points] });
  }, [points, walking, key]);

  const begin = () => {
    setFault(null);
    const { fromLonLat } = converter(origin);
    const start = startOf();
    const receiver = source === 'device' ? deviceReceiver : simulatedReceiver(start);
    const take = (fix: Fix) => {
      setAccuracy(fix.accuracy_m);
      if (fix.accuracy_m > WORST) return;
      const p = 'local' in fix.at ? fix.at.local : fromLonLat([fix.at.lon, fix.at.lat]);
      setPoints((was) => {
        const last = was.at(-1);
        return last && Math.hypot(p.e - last.e, p.n - last.n) < 0.3 ? was : [...was, p];
      });
    };
    setWalking(true);
    stop.current = receiver.watch(take, (words) => {
      setFault(words);
      setWalking(false);
    });
  };
  const halt = () => {
    stop.current?.();
    stop.current = null;
    setWalking(false);
    useSketch.setState({ shown: [] });
  };
  const letGo = () => {
    halt();
    setPoints([]);
    localStorage.removeItem(key);
  };
  return (
    <details className="border-rule mt-3 border-t pt-2" open={points.length > 0 || walking}>
      <summary className="cursor-pointer font-semibold">
        <Footprints size={14} aria-hidden className="inline" /> Walk a line now
      </summary>
      <div className="mt-2 flex flex-col gap-2">
        <Choice
          label="Receiver"
          value={source}
          options={[
            ['device', 'this device'],
            ['simulated', 'simulated walk'],
          ]}
          onChange={setSource}
        />
        <div className="flex gap-1">
          {walking ? (
            <button className="button button-strong" onClick={halt}>
              Stop walking
            </button>
          ) : (
            <button className="button button-strong" onClick={begin}>
              {points.length > 0 ? 'Walk on' : 'Start walking'}
            </button>
          )}
          {points.length > 1 && !walking && (
            <button
              className="button"
              onClick={() => {
                wait({ from: 'This walk', lines: [{ name: 'Walked line', points }], places: [] });
                setPoints([]);
                localStorage.removeItem(key);
              }}
            >
              Make it a line
            </button>
          )}
          {points.length > 0 && !walking && (
            <button className="button" onClick={letGo}>
              Let it go
            </button>
          )}
        </div>
        {(walking || points.length > 0) && (
          <p role="status">
            {points.length} points,{' '}
            <Num
              value={points.length > 1 ? stations(points).at(-1)! : 0}
              q="length"
              from={MEASURED}
            />
            {accuracy !== null && (
              <>
                , good to about{' '}
                <Num
                  value={accuracy}
                  q="length"
                  from={{
                    kind: 'measured',
                    title: 'Accuracy',
                    source: 'As the receiver states it',
                  }}
                />
              </>
            )}
          </p>
        )}
        {fault && (
          <p role="alert" className="text-live text-xs">
            {fault}
          </p>
        )}
      </div>
    </details>
  );
}

/** Where a simulated walk begins: beside the first line, else at the origin. */
function startOf(): Point {
  const first = Object.values(useSession.getState().plan.lines)[0]?.vertices[0];
  return first ? { e: first.e + 10, n: first.n + 10 } : { e: 0, n: 0 };
}

function stored(key: string): Point[] {
  try {
    const list = JSON.parse(localStorage.getItem(key) ?? '[]') as Point[];
    return list.filter((p) => Number.isFinite(p.e) && Number.isFinite(p.n));
  } catch {
    return [];
  }
}
