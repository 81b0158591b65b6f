import { Footprints } from 'lucide-react';
import { useEffect, useRef, useState } from 'react';
import type { Plan, Point } from '../../core/plan/schema.js';
import { stations } from '../../core/plan/geometry.js';
import type { Fix } from '../../ui/devices/positioning.js';
import { Choice } from '../../ui/parts/controls.js';
import { MEASURED, Num } from '../../ui/parts/Num.js';
import { forgetHere, keepHere, keptHere } from '../../session/here.js';
import { useSession } from '../../session/session.js';
import { useSketch } from './sketch.js';
import { isBare } from './bare.js';
import { wait } from './waiting.js';
import { Button } from '../../ui/parts/Button.js';

type Origin = Plan['origin'];

/** Fixes worse than this are not walked on, m. */
const WORST = 25;

/** Walks a line with a receiver; what was walked stays in this browser until it is taken or let go. */
export function LiveWalk() {
  const id = useSession((s) => s.id);
  const origin = useSession((s) => s.plan.origin);
  const key = `anabatic.walk.${id}`;
  /** Where the walk has its origin, while the property has none. */
  const homeKey = `${key}.home`;
  const [source, setSource] = useState<'device' | 'simulated'>('device');
  const [points, setPoints] = useState<Point[]>(() => stored(key));
  const [accuracy, setAccuracy] = useState<number | null>(null);
  const [fault, setFault] = useState<string | null>(null);
  const stop = useRef<(() => void) | null>(null);
  const [walking, setWalking] = useState(false);
  const [kept, setKept] = useState(true);
  useEffect(() => () => stop.current?.(), []);
  useEffect(() => {
    if (points.length > 0) setKept(keepHere(key, points));
    if (walking) useSketch.setState({ shown: [points] });
  }, [points, walking, key]);

  const halt = () => {
    stop.current?.();
    stop.current = null;
    setWalking(false);
    useSketch.setState({ shown: [] });
  };
  const begin = async () => {
    halt();
    setFault(null);
    // Loaded when a walk begins: the map opens without it.
    const [globe, receivers] = await Promise.all([
      import('../../formats/projection.js'),
      import('../../ui/devices/positioning.js'),
    ]).catch(() => []);
    if (!globe || !receivers)
      return setFault('The server does not answer: the walk cannot begin now.');
    // A property with nothing on it has no place yet: it lies where its first walk does.
    const bare = globe.nowhere(origin) && points.length === 0 && isBare();
    let home = keptHere<Origin | null>(homeKey, null) ?? (bare ? null : origin);
    if (source === 'device' && home && globe.nowhere(home))
      return setFault(
        'This property has no place on the globe: it was begun in plain metres. Begin a new one from a walk.',
      );
    const placed = (at: [number, number]): Point => {
      if (!home) keepHere(homeKey, (home = globe.originAt(at)));
      return globe.converter(home).fromLonLat(at);
    };
    const start = startOf();
    const receiver =
      source === 'device'
        ? receivers.deviceReceiver
        : receivers.simulatedReceiver(receivers.storedTrack(start));
    const take = (fix: Fix) => {
      setAccuracy(fix.accuracy_m);
      if (fix.accuracy_m > WORST) return;
      const p = 'local' in fix.at ? fix.at.local : placed([fix.at.lon, fix.at.lat]);
      setPoints((was) => {
        const last = was.at(-1);
        return last && Math.hypot(p.e - last.e, p.n - last.n) < 0.3 ? was : [...was, p];
      });
    };
    setWalking(true);
    let faulty = false;
    const end = receiver.watch(take, (words) => {
      faulty = true;
      halt();
      setFault(words);
    });
    // One that fails at once has been halted before there was anything to end.
    if (faulty) end();
    else stop.current = end;
  };
  const letGo = () => {
    halt();
    setPoints([]);
    forgetHere(key);
    forgetHere(homeKey);
  };
  const bring = () => {
    const home = keptHere<Origin | null>(homeKey, null);
    wait({
      from: 'This walk',
      lines: [{ name: 'Walked line', points }],
      places: [],
      ...(home ? { origin: home } : {}),
    });
    letGo();
  };
  return (
    <details
      className="border-rule mt-3 border-t pt-2"
      open={points.length > 0 || walking || fault !== null}
    >
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
            <Button strong onClick={halt}>
              Stop walking
            </Button>
          ) : (
            <Button strong onClick={() => void begin()}>
              {points.length > 0 ? 'Walk on' : 'Start walking'}
            </Button>
          )}
          {points.length > 1 && !walking && <Button onClick={bring}>Make it a line</Button>}
          {points.length > 0 && !walking && <Button onClick={letGo}>Let it go</Button>}
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
        {!kept && (
          <p role="alert" className="text-stop text-xs">
            This browser has no room left: the walk lives in this tab alone until it is made a line.
          </p>
        )}
        {fault && (
          <p role="alert" className="text-stop text-xs">
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

const stored = (key: string): Point[] => {
  const list = keptHere<Point[]>(key, []);
  return Array.isArray(list)
    ? list.filter((p) => Number.isFinite(p?.e) && Number.isFinite(p?.n))
    : [];
};
