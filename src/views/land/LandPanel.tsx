/** Beside the map: what is in the hand, what is chosen, else the whole property. */
import { lazy, useEffect, useRef, useState } from 'react';
import { Loaded } from '../../ui/parts/Loaded.js';
import { useSession } from '../../session/session.js';
import { useView, useViewOf } from '../../session/view.js';
import { SHAPE_OF } from '../../core/land/things.js';
import type { ThingKind } from '../../core/plan/schema.js';
import { Overview } from './Overview.js';
import { useWaiting } from './waiting.js';

// What is first shown is the map: a card comes when something is chosen.
const cards = () => import('./cards.js');
const PaddockCard = lazy(() => cards().then((m) => ({ default: m.PaddockCard })));
const WalkReview = lazy(() => cards().then((m) => ({ default: m.WalkReview })));
const ManyCard = lazy(() => cards().then((m) => ({ default: m.ManyCard })));
const ThingCard = lazy(() => cards().then((m) => ({ default: m.ThingCard })));
const DrawPanel = lazy(() => cards().then((m) => ({ default: m.DrawPanel })));
const PlaceForm = lazy(() => cards().then((m) => ({ default: m.PlaceForm })));
const LineCard = lazy(() => cards().then((m) => ({ default: m.LineCard })));

/** What is chosen, else the whole property with its files. */
export function LandSide() {
  const tool = useView((v) => v.tool);
  const [said, setSaid] = useState<string | null>(null);
  const waits = useWaiting((w) => w.walk !== null);
  const { line, also, thing } = useViewOf('line', 'also', 'thing');
  const box = useRef<HTMLDivElement>(null);
  const what = thing?.id ?? line ?? '';
  const before = useRef(what);
  useEffect(() => {
    if (before.current === what) return;
    before.current = what;
    // What was pressed is gone from the side: the focus stays with what was chosen there.
    const timer = setTimeout(() => {
      if (document.activeElement === document.body) box.current?.focus({ preventScroll: true });
    }, 60);
    return () => clearTimeout(timer);
  }, [what]);
  const exists = useSession((s) => (line ? line in s.plan.lines : false));
  return (
    <div ref={box} tabIndex={-1} className="bg-panel p-3" data-hand>
      {(tool === 'draw' || tool === 'lane' || tool in SHAPE_OF) && (
        <Loaded what="The pen">
          <DrawPanel tool={tool} />
        </Loaded>
      )}
      {(tool === 'gate' || tool === 'energiser' || SHAPE_OF[tool as ThingKind] === 'point') && (
        <Loaded what="The form">
          <PlaceForm tool={tool} />
        </Loaded>
      )}
      {waits && (
        <Loaded what="The walk">
          <WalkReview onDone={setSaid} />
        </Loaded>
      )}
      {said && (
        <p role="status" className="label mt-2">
          {said}
        </p>
      )}
      <Loaded what="What is chosen">
        {thing?.kind === 'paddock' ? (
          <PaddockCard at={thing.id} />
        ) : thing ? (
          <ThingCard thing={thing} />
        ) : line && exists && also.length > 0 ? (
          <ManyCard ids={[line, ...also]} />
        ) : line && exists ? (
          <LineCard id={line} />
        ) : (
          <Overview />
        )}
      </Loaded>
    </div>
  );
}
