import { ArrowLeft, ArrowRight, X } from 'lucide-react';
import { useEffect, useRef } from 'react';
import type { Plan } from '../../core/plan/schema.js';
import type { Report } from '../../core/report/schema.js';
import { useSession } from '../../session/session.js';
import { chooseLine, goTo, look, useView } from '../../session/view.js';
import { Button } from '../../ui/parts/Button.js';

interface Stop {
  readonly step: string;
  readonly title: string;
  readonly words: string;
  /** Brings what is spoken of into view. */
  readonly show?: (plan: Plan, report: Report | null) => void;
}

/** The line with the longest fence. */
const longest = (report: Report | null): string | null =>
  Object.values(report?.lines ?? {}).reduce<{ id: string; ground_m: number } | null>(
    (best, l) => (best && best.ground_m >= l.ground_m ? best : l),
    null,
  )?.id ?? null;

const STOPS: readonly Stop[] = [
  {
    step: 'land',
    title: 'A fence is a line',
    words:
      'This one is chosen on the map, and the section below shows it from end to end: ground, posts, strands, volts. Point along the section: the map points with it. Drag a corner and everything follows.',
    show: (_, report) => chooseLine(longest(report)),
  },
  {
    step: 'strands',
    title: 'Its strands, to scale',
    words:
      'How many, how high, live or earth: drag one and the rule that it breaks is said at once. “Proposals” works a make-up out from the stock on both sides, with the figure that decided.',
    show: (_, report) => {
      chooseLine(longest(report));
      look({ strandsTab: 'strands' });
    },
  },
  {
    step: 'section',
    title: 'A post that lifts',
    words:
      'In a dip the wire pulls posts out of the ground. Where it does, the section says so with the force and what the soil holds. “Place by the ground” puts every post where it stays, and says what that saves.',
    show: (_, report) => {
      const lifts = report?.findings.find((f) => f.rule === 'post-lifts' && f.place.line);
      chooseLine(lifts?.place.line ?? longest(report));
      if (lifts) look({ finding: lifts.id, cursor: lifts.place.from_m ?? null });
    },
  },
  {
    step: 'power',
    title: 'Volts at the worst point',
    words:
      'What arrives at the far end in the driest and the wettest season, which unit is enough, how many rods the earth needs. The season above changes every number on every step.',
  },
  {
    step: 'supplies',
    title: 'The order',
    words:
      'All of it counted and priced from the plan. The prices are made up: put your own in. The small mark beside a number anywhere says where it comes from.',
  },
];

/** Five stops through the work; left at any time. */
export function Tour() {
  const at = useView((v) => v.tour);
  const id = useSession((s) => s.id);
  const worked = useSession((s) => s.report !== null);
  const heading = useRef<HTMLHeadingElement>(null);
  const stop = at === null ? undefined : STOPS[at];
  useEffect(() => {
    if (!stop || !worked) return;
    const { plan, report } = useSession.getState();
    if (useView.getState().step !== stop.step) goTo(stop.step, id);
    stop.show?.(plan, report);
    heading.current?.focus();
  }, [stop, worked, id]);
  if (at === null || !stop) return null;
  const leave = () => look({ tour: null });
  return (
    <section
      aria-label="Tour"
      className="bg-panel border-ink no-print fixed right-1 bottom-1 z-40 w-[276px] border-2 p-4 shadow-lg max-[700px]:inset-x-0 max-[700px]:bottom-0 max-[700px]:w-auto"
    >
      <p className="label flex justify-between">
        <span>
          Stop {at + 1} of {STOPS.length}
        </span>
        <button
          className="-mt-1 -mr-1 cursor-pointer p-1"
          aria-label="Leave the tour"
          onClick={leave}
        >
          <X size={16} aria-hidden />
        </button>
      </p>
      <h2 ref={heading} tabIndex={-1} className="heading mb-1">
        {stop.title}
      </h2>
      <p>{stop.words}</p>
      <div className="mt-3 flex gap-2">
        <Button disabled={at === 0} onClick={() => look({ tour: at - 1 })}>
          <ArrowLeft size={14} aria-hidden /> Back
        </Button>
        {at + 1 < STOPS.length ? (
          <Button strong onClick={() => look({ tour: at + 1 })}>
            Next <ArrowRight size={14} aria-hidden />
          </Button>
        ) : (
          <Button strong onClick={leave}>
            Done
          </Button>
        )}
      </div>
    </section>
  );
}
