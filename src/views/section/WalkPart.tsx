/** The line walked with the phone: where one stands on it, how far it is to the next post, post by post, with sound. */
import { Check as Tick, Footprints, StepBack, StepForward, Volume2, VolumeX } from 'lucide-react';
import { useEffect, useRef, useState } from 'react';
import { say } from '../../core/base/units.js';
import { recordOf } from '../../core/plan/catalogue.js';
import type { Line, Point } from '../../core/plan/schema.js';
import {
  nearestLine,
  nextPost,
  standAt,
  tickEvery,
  wayTo,
  type Fix,
  type Stood,
} from '../../core/posts/walking.js';
import { runOf } from '../../core/posts/layout.js';
import type { LineReport } from '../../core/report/schema.js';
import { useCatalogue } from '../../session/catalogue.js';
import { keepHere, keptHere } from '../../session/here.js';
import { useSession } from '../../session/state.js';
import { chooseLine, look } from '../../session/view.js';
import { simulatedReceiver } from '../../ui/devices/positioning.js';
import { startTicks, type Ticks } from '../../ui/ticks.js';
import { Button } from '../../ui/parts/Button.js';
import { FieldFault } from '../../ui/parts/FieldFault.js';
import { useUnits } from '../../ui/parts/Num.js';
import { useFixes } from '../rounds/here.js';

/** How many times faster than a walk the simulated one goes: slow enough to read the figures. */
const HURRY = 3;

interface On {
  readonly line: Line;
  readonly report: LineReport;
}

/** @param line the one that is walked; who comes to another one starts there anew */
export function WalkPart({ line, report }: On) {
  const [source, setSource] = useState<'device' | 'simulated' | null>(null);
  return (
    <section aria-label="Walk this line" className="no-print mb-4">
      {source === null ? (
        <p className="flex flex-wrap items-center gap-2">
          <Button strong onClick={() => setSource('device')}><Footprints size={18} aria-hidden /> Walk this line</Button>
          <Button onClick={() => setSource('simulated')}>Simulated walk</Button>
          <span className="label">Where you stand on it, and post by post with sound.</span>
        </p>
      ) : (
        <Walking key={`${line.id} ${source}`} line={line} report={report} simulated={source === 'simulated'} onEnd={() => setSource(null)} />
      )}
    </section>
  );
} // prettier-ignore

function Walking({ line, report, simulated, onEnd }: On & { simulated: boolean; onEnd: () => void }) {
  const watch = useFixes();
  const units = useUnits();
  const cat = useCatalogue();
  const property = useSession((s) => s.id);
  const lines = useSession((s) => s.plan.lines);
  const key = `anabatic.staked.${property}.${line.id}`;
  const [fault, setFault] = useState<string | null>(null);
  const [fix, setFix] = useState<Fix | null>(null);
  const [stood, setStood] = useState<Stood | null>(null);
  const [target, setTarget] = useState<number | null>(null);
  const [loud, setLoud] = useState(true);
  /** Marks of the posts that are staked, by their place: a post that moves is to be staked anew. */
  const [staked, setStaked] = useState<readonly number[]>(() => keptHere(key, []));
  const before = useRef<number | null>(null);
  const ticks = useRef<Ticks | null>(null);
  const { posts } = report;

  useEffect(() => {
    let end: (() => void) | null = null;
    let over = false;
    ticks.current = startTicks();
    const onFix = (at: Point, within_m: number) => {
      const now = standAt(line, posts, { at, within_m }, before.current);
      before.current = now.s_m;
      setFix({ at, within_m });
      setStood(now);
      setFault(null);
      look({ cursor: now.on ? now.s_m : null });
    };
    void watch(onFix, setFault, simulated ? simulatedReceiver(line.vertices, HURRY) : undefined).then((stop) => {
      if (over) stop();
      else end = stop;
    });
    // A dark screen has no sound and no position.
    const awake = navigator.wakeLock?.request('screen').catch(() => null);
    return () => {
      over = true;
      end?.();
      ticks.current?.stop();
      void awake?.then((lock) => lock?.release());
    };
    // The walk goes on while figures change; another line is another walk.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, []);

  const chosen = target ?? (stood ? (nextPost(posts, stood) ?? posts.length - 1) : null);
  const post = chosen === null ? undefined : posts[chosen];
  const way = post && stood ? wayTo(post, stood) : null;
  useEffect(() => {
    ticks.current?.set(loud && way && stood?.on ? tickEvery(way.on_m) : null, way?.here);
  }, [loud, way, stood]);

  const near = stood && !stood.on && fix ? nearestLine(lines, fix) : null;
  const done = (k: number) => staked.some((s) => Math.abs(s - posts[k]!.s_m) < 0.02);
  const go = (k: number) => setTarget(Math.max(0, Math.min(posts.length - 1, k)));
  const stake = () => {
    const k = chosen!;
    const next = done(k) ? staked.filter((s) => Math.abs(s - posts[k]!.s_m) >= 0.02) : [...staked, posts[k]!.s_m];
    setStaked(next);
    if (!keepHere(key, next)) setFault('This browser has no room to keep what is staked.');
    if (!done(k)) go(k + 1);
  };
  const run = post ? runOf(report, post.s_m) : null;
  const last = chosen !== null && chosen > 0 ? posts[chosen - 1]! : null;
  return (
    <div className="border-ink space-y-3 border p-3" data-walking>
      <div className="flex items-center justify-between gap-2">
        <h2 className="heading">Walking {line.name}</h2>
        <Button onClick={onEnd}>End</Button>
      </div>
      {simulated && <p className="label">Simulated: nobody walks here.</p>}
      {fault && <FieldFault>{fault}</FieldFault>}
      {!stood && !fault && <p role="status">Waiting for a position …</p>}
      {stood && !stood.on && (
        <p role="status">
          {say(Math.abs(stood.off_m), 'along', units)} from this line.{' '}
          {near && near.id !== line.id && (
            <>
              You stand at {lines[near.id]!.name}. <Button onClick={() => chooseLine(near.id)}>Walk that one</Button>
            </>
          )}
        </p>
      )}
      {stood?.on && post && way && (
        <>
          <p className="figure text-4xl leading-none font-semibold" data-way>
            {way.here ? 'here' : `${say(Math.abs(way.on_m), 'along', units)} ${way.on_m > 0 ? 'on' : 'back'}`}
          </p>
          <p>
            to post {chosen! + 1} of {posts.length}, {post.role === 'line' ? recordOf(cat.posts, post.kind).name : post.role}
            {done(chosen!) && ', staked'}
          </p>
          <p className="label">
            You stand at {say(stood.tape_m, 'along', units)} from the start, {say(Math.abs(stood.off_m), 'along', units)}{' '}
            {stood.off_m < 0 ? 'left' : 'right'} of the line, within {say(stood.within_m, 'along', units)}.
          </p>
          <p>
            {way.stake
              ? 'This receiver is good enough to set the stake.'
              : `A position within ${say(stood.within_m, 'along', units)} finds the place; the tape sets the post:`}
            {!way.stake && last && run && (
              <strong> {say(post.tape_m - last.tape_m, 'along', units)} from post {chosen!}, {say(post.tape_m - run.tape_m, 'along', units)} from the start of its run.</strong>
            )}
          </p>
        </>
      )}
      <div className="grid grid-cols-3 gap-2">
        <Button className="justify-center !py-4" aria-label="The post before" disabled={chosen === null} onClick={() => go(chosen! - 1)}><StepBack size={22} aria-hidden /></Button>
        <Button strong className="justify-center !py-4 text-lg" aria-pressed={chosen !== null && done(chosen)} disabled={chosen === null} onClick={stake}><Tick size={22} aria-hidden /> Staked</Button>
        <Button className="justify-center !py-4" aria-label="The next post" disabled={chosen === null} onClick={() => go(chosen! + 1)}><StepForward size={22} aria-hidden /></Button>
      </div>
      <div className="flex flex-wrap items-center gap-2">
        <Button aria-pressed={loud} onClick={() => setLoud(!loud)}>{loud ? <Volume2 size={18} aria-hidden /> : <VolumeX size={18} aria-hidden />} Sound</Button>
        <Button disabled={!stood} onClick={() => setTarget(null)} aria-pressed={target === null}>Follow me</Button>
        <span className="label" data-staked>{posts.filter((_, k) => done(k)).length} of {posts.length} staked, noted on this device</span>
      </div>
    </div>
  );
} // prettier-ignore
