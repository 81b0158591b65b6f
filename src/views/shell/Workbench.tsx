import { lazy, useEffect, useState } from 'react';
import { Loaded } from '../../ui/parts/Loaded.js';
import { openSession, redo, refuse, undo, useSession } from '../../session/session.js';
import { goTo, look, rememberView, useView } from '../../session/view.js';
import { SectionStrip } from '../section/SectionStrip.js';
import { bound, useKeys } from '../../ui/keys.js';
import { stepNamed, STEPS, type Step } from '../steps.js';
import { Findings } from './Findings.js';
import { HelpSheet, Notices } from './Notices.js';
import { Rail } from './Rail.js';
import { TopBar } from './TopBar.js';

const Tour = lazy(() => import('./Tour.js').then((m) => ({ default: m.Tour })));

/** One property: rail of steps, the view, the section below, findings beside. */
export function Workbench({ id, step: first }: { id: string; step: string }) {
  const [state, setState] = useState<'opening' | 'open' | string>('opening');
  const step = stepNamed(useView((v) => v.step)).step;

  useEffect(() => {
    rememberView();
    const opened = stepNamed(first);
    look({ step: opened.step.id });
    const asked = new URLSearchParams(location.search);
    if (asked.has('draw')) look({ tool: 'draw' });
    if (asked.has('tour')) look({ tour: 0 });
    openSession(id).then(
      () => {
        setState('open');
        if (opened.said) refuse(opened.said);
      },
      (error: Error) => setState(error.message),
    );
    const back = () => look({ step: stepNamed(location.pathname.split('/')[3]).step.id });
    addEventListener('popstate', back);
    return () => removeEventListener('popstate', back);
  }, [id, first]);

  useShellKeys(STEPS);
  const tour = useView((v) => v.tour !== null);
  const worked = useSession((s) => s.report != null);
  useEffect(() => (worked ? fetchAhead() : undefined), [worked]);

  if (state !== 'open') {
    return (
      <main className="p-6">
        {state === 'opening' ? (
          <p role="status">Opening …</p>
        ) : (
          <p role="alert">
            {state}{' '}
            <a className="underline" href="/">
              All properties
            </a>
          </p>
        )}
      </main>
    );
  }
  return (
    <div className="flex h-dvh flex-col max-[700px]:h-auto">
      <TopBar />
      <Notices />
      <div className="flex min-h-0 flex-1 max-[700px]:flex-col">
        <Rail />
        <main className="flex min-w-0 flex-1 flex-col" aria-label={step.name}>
          <div className="relative min-h-0 flex-1 overflow-auto">
            <StepView step={step} />
          </div>
          {step.section && <SectionStrip />}
        </main>
        <Findings />
      </div>
      <HelpSheet steps={STEPS} />
      {tour && (
        <Loaded what="The tour">
          <Tour />
        </Loaded>
      )}
    </div>
  );
}

/** How long after the first figures the other steps are fetched, ms: nobody waits for anything then. */
const AHEAD = 4000;

/** Fetches every step while the server is there, so that each can be looked at when it is away. */
function fetchAhead(): () => void {
  const timer = setTimeout(() => {
    for (const step of STEPS) void step.load?.().catch(() => undefined);
    void import('../land/cards.js').catch(() => undefined);
    void import('../../formats/projection.js').catch(() => undefined);
  }, AHEAD);
  return () => clearTimeout(timer);
}

/** The view of a step; a word stands there while it is being loaded. */
export function StepView({ step }: { step: Step }) {
  return (
    <Loaded key={step.id} what={step.name} fallback={<p className="p-4">Drawing {step.name} …</p>}>
      <step.view />
    </Loaded>
  );
}

/** Keys that work on every step. */
function useShellKeys(steps: readonly Step[]): void {
  const id = useSession((s) => s.id);
  useKeys([
    ...steps.map((s) => [s.key, () => goTo(s.id, id)] as const),
    ...bound('everywhere', { undo, redo, help: () => look({ help: true }) }),
  ]);
}
