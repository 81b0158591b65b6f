/** The chosen line from end to end below the view: where it stands, and which volts it shows. */
import { lazy, Suspense, useLayoutEffect, useRef, useState } from 'react';
import type { SeasonPower } from '../../core/report/schema.js';
import { useSession } from '../../session/session.js';
import { useView } from '../../session/view.js';

/** Drawn only for a chosen line, and loaded only then: the map opens the sooner. */
const Strip = lazy(() => import('./Strip.js').then((m) => ({ default: m.Strip })));

/** The volts of a line in a season, from whichever energiser feeds it. */
function useVolts(id: string | null): SeasonPower['lines'][string] | null {
  const report = useSession((s) => s.report);
  const season = useView((v) => v.season);
  if (!id || !report) return null;
  for (const e of Object.values(report.energisers)) {
    const along = e.seasons[season]?.lines[id];
    if (along) return along;
  }
  return null;
}

export function SectionStrip() {
  const id = useView((v) => v.line);
  const tall = useView((v) => v.step === 'section');
  const line = useSession((s) => (id ? s.plan.lines[id] : undefined));
  const report = useSession((s) => (id ? s.report?.lines[id] : undefined));
  const volts = useVolts(id);
  const [box, width] = useWidth();
  const [openTracks, setOpenTracks] = useState(false);
  return (
    <section
      ref={box}
      aria-label="Section of the chosen line"
      className="border-ink bg-panel no-print relative shrink-0 border-t max-[700px]:order-last"
    >
      {line && report ? (
        <Suspense fallback={<div className="h-[200px]" />}>
          <Strip
            line={line}
            report={report}
            volts={volts}
            width={width}
            tall={tall}
            tracksOpen={openTracks}
            onTracks={() => setOpenTracks(!openTracks)}
          />
        </Suspense>
      ) : (
        <p className="label px-4 py-2">
          Choose a line on the map to see its ground, posts and strands from end to end.
        </p>
      )}
    </section>
  );
}

function useWidth() {
  const box = useRef<HTMLElement>(null);
  const [width, setWidth] = useState(800);
  useLayoutEffect(() => {
    if (!box.current) return;
    const watch = new ResizeObserver(([entry]) => setWidth(entry!.contentRect.width));
    watch.observe(box.current);
    return () => watch.disconnect();
  }, []);
  return [box, width] as const;
}
