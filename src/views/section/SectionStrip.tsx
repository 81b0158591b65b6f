/** The chosen line from end to end below the view: where it stands, and which volts it shows. */
import { ChevronUp } from 'lucide-react';
import { lazy, Suspense, useLayoutEffect, useRef, useState } from 'react';
import type { SeasonPower } from '../../core/report/schema.js';
import { useSession } from '../../session/session.js';
import { inHand, useShape } from '../../session/shape.js';
import { look, useView } from '../../session/view.js';

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

/** Height that the strip has where nobody says another, px. */
const USUAL = { tall: 330, low: 190 } as const;

/** @param folded one row of words, whatever was chosen */
export function SectionStrip({ folded = false }: { folded?: boolean }) {
  const id = useView((v) => v.line);
  const tall = useView((v) => v.step === 'section');
  const open = useView((v) => v.sectionOpen);
  const hand = inHand(useShape());
  const line = useSession((s) => (id ? s.plan.lines[id] : undefined));
  const report = useSession((s) => (id ? s.report?.lines[id] : undefined));
  const volts = useVolts(id);
  const [box, width, height] = useSize();
  const [openTracks, setOpenTracks] = useState(false);
  const shown = (open || hand) && !folded;
  return (
    <section
      ref={box}
      id="section-strip"
      tabIndex={-1}
      aria-label="Section of the chosen line"
      className={`bg-panel relative ${line && report && shown ? 'h-full overflow-x-hidden overflow-y-auto' : 'border-ink shrink-0 border-t'}`}
    >
      {line && report && shown ? (
        <Suspense fallback={<div className="h-[200px]" />}>
          <Strip
            line={line}
            report={report}
            volts={volts}
            width={width}
            height={hand ? Math.max(USUAL.low, height) : height || USUAL[tall ? 'tall' : 'low']}
            tall={tall}
            tracksOpen={openTracks}
            onTracks={() => setOpenTracks(!openTracks)}
          />
        </Suspense>
      ) : line && report ? (
        <button
          className="label flex min-h-9 w-full cursor-pointer items-center gap-2 px-4 text-left"
          aria-expanded={false}
          onClick={() => look({ sectionOpen: true })}
        >
          <ChevronUp size={14} aria-hidden /> Show the section of <bdi>{line.name}</bdi>
        </button>
      ) : (
        <p className="label no-print px-4 py-2">
          Choose a line on the map to see its ground, posts and strands from end to end.
        </p>
      )}
    </section>
  );
}

function useSize() {
  const box = useRef<HTMLElement>(null);
  const [size, setSize] = useState<readonly [number, number]>([800, 0]);
  useLayoutEffect(() => {
    if (!box.current) return;
    const watch = new ResizeObserver(([entry]) =>
      setSize([entry!.contentRect.width, entry!.contentRect.height]),
    );
    watch.observe(box.current);
    return () => watch.disconnect();
  }, []);
  return [box, ...size] as const;
}
