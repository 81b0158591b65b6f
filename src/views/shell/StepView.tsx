/** The view of a step, and what stands beside it. */
import { useEffect } from 'react';
import { useSession } from '../../session/session.js';
import { chooseLine, useView } from '../../session/view.js';
import { Loaded } from '../../ui/parts/Loaded.js';
import type { Step } from '../steps.js';

/** The view of a step; a word stands there while it is being loaded. */
export function StepView({ step }: { step: Step }) {
  return (
    <Loaded key={step.id} what={step.name} fallback={<p className="p-4">Drawing {step.name} …</p>}>
      <step.view />
    </Loaded>
  );
}

/** What one chooses from beside the view: the list of lines, or the cards of the map. */
export function StepSide({ step }: { step: Step }) {
  if (!step.side) return null;
  return (
    <Loaded key={step.id} what="What is chosen">
      <step.side />
    </Loaded>
  );
}

/** On steps that speak of one line, one is always chosen. */
export function useSomeLine(step: Step): void {
  const lines = useSession((s) => s.plan.lines);
  const chosen = useView((v) => v.line);
  const first = Object.keys(lines)[0];
  useEffect(() => {
    if (step.oneLine && (!chosen || !(chosen in lines)) && first) chooseLine(first);
  }, [step, chosen, lines, first]);
}
