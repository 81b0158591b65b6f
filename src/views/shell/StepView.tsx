/** The view of a step, and what stands beside it. */
import { PenLine } from 'lucide-react';
import { useEffect, useState, type ComponentProps } from 'react';
import { useSession } from '../../session/session.js';
import { chooseLine, goTo, look, useView } from '../../session/view.js';
import { Button } from '../../ui/parts/Button.js';
import { Loaded } from '../../ui/parts/Loaded.js';
import type { Step } from '../steps.js';

/** The view of a step; a word stands there while it is being loaded. */
export function StepView({ step }: { step: Step }) {
  const bare = useSession((s) => step.oneLine && Object.keys(s.plan.lines).length === 0);
  if (useFiguresFirst()) return <Drawing step={step} />;
  if (bare) return <NoLine step={step} />;
  return (
    <OfFigures key={step.id} what={step.name} fallback={<Drawing step={step} />}>
      <step.view />
    </OfFigures>
  );
}

/** A part of the screen that is drawn from plan and report: for a moment one may name what the other does not have. */
export function OfFigures(
  props: Pick<ComponentProps<typeof Loaded>, 'what' | 'fallback' | 'children'>,
) {
  const report = useSession((s) => s.report);
  return <Loaded {...props} of={report} />;
}

/** A step that speaks of one line, where there is none. */
function NoLine({ step }: { step: Step }) {
  const id = useSession((s) => s.id);
  const draw = () => {
    goTo('land', id);
    look({ tool: 'draw' });
  };
  return (
    <div className="p-4">
      <p className="mb-3">
        There is no line yet. Once one is drawn on Land, {step.name} shows it here.
      </p>
      <Button strong onClick={draw}>
        <PenLine size={16} aria-hidden /> Draw the first line
      </Button>
    </div>
  );
}

const Drawing = ({ step }: { step: Step }) => <p className="p-4">Drawing {step.name} …</p>;

/** Where the way to the server is slow, figures are fetched before pictures: so long after its start a page counts as slow, ms. */
const SLOW_MS = 1500;
/** Figures are not waited for longer than this, ms. */
const PATIENCE_MS = 6000;

/** Whether the view waits for the first figures. */
function useFiguresFirst(): boolean {
  const worked = useSession((s) => s.report !== null);
  const [waits, setWaits] = useState(() => !worked && performance.now() > SLOW_MS);
  useEffect(() => {
    if (!waits) return;
    const timer = setTimeout(() => setWaits(false), PATIENCE_MS);
    return () => clearTimeout(timer);
  }, [waits]);
  return waits && !worked;
}

/** What one chooses from beside the view: the list of lines, or the cards of the map. */
export function StepSide({ step }: { step: Step }) {
  if (!step.side) return null;
  return (
    <OfFigures key={step.id} what="What is chosen">
      <step.side />
    </OfFigures>
  );
}

/** On steps that speak of one line, one is always chosen; one that is gone from the plan is on none. */
export function useSomeLine(step: Step): void {
  const lines = useSession((s) => s.plan.lines);
  const chosen = useView((v) => v.line);
  const first = Object.keys(lines)[0];
  useEffect(() => {
    if (chosen !== null && chosen in lines) return;
    const next = (step.oneLine && first) || null;
    if (next !== chosen) chooseLine(next);
  }, [step, chosen, lines, first]);
}
