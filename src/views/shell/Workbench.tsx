import { lazy, useDeferredValue, useEffect, useRef, useState } from 'react';
import { inHand as findingsWait, type Hurry } from '../../core/parts/part.js';
import type { Plan } from '../../core/plan/schema.js';
import { Loaded } from '../../ui/parts/Loaded.js';
import { followKind } from '../../session/kept.js';
import { openSession, redo, refuse, undo, useSession } from '../../session/session.js';
import { inHand, useShape } from '../../session/shape.js';
import { goTo, look, rememberView, useView } from '../../session/view.js';
import { loadQuestions } from '../../session/workers.js';
import { bound, useKeys } from '../../ui/keys.js';
import { stepNamed, STEPS, type Step } from '../steps.js';
import { asks } from './asks.js';
import { Desk } from './Desk.js';
import { Notices } from './Notices.js';
import { PrintHead } from './PrintHead.js';
import { Told } from './Told.js';
import { TopBar } from './TopBar.js';
import { walkFindings } from './walk.js';

// What most people do not see at first is fetched when it is wanted.
const Hand = lazy(() => import('./Hand.js').then((m) => ({ default: m.Hand })));
const HelpSheet = lazy(() => import('./HelpSheet.js').then((m) => ({ default: m.HelpSheet })));
const Tour = lazy(() => import('./Tour.js').then((m) => ({ default: m.Tour })));

/** One property: opened, then laid out as the room on the screen allows. */
export function Workbench({ id, step: first }: { id: string; step: string }) {
  const [state, setState] = useState<'opening' | 'open' | string>('opening');
  // The rail has it at once; a view takes a moment, in pieces between which the page answers.
  const step = useDeferredValue(stepNamed(useView((v) => v.step)).step);
  const shape = useShape();

  useEffect(() => {
    rememberView();
    const opened = stepNamed(first);
    look({ step: opened.step.id });
    const asked = new URLSearchParams(location.search);
    if (asked.has('draw')) look({ tool: 'draw' });
    if (asked.has('tour')) look({ tour: 0 });
    // While the plan is being fetched, where the program is here: else it would stand in the way of the worker's.
    if ('serviceWorker' in navigator && navigator.serviceWorker.controller)
      void opened.step.load?.().catch(() => undefined);
    const wanted = asks(opened.step.id);
    if (wanted) loadQuestions();
    const questions = wanted && import('../../session/question.js');
    openSession(id).then(
      () => {
        // Before the page is drawn, which takes as long as the worker takes to begin.
        void questions?.then((m) => m.prepareQuestions(wanted!.ahead));
        wanted?.kinds.forEach(followKind);
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
  useBehind();
  const tour = useView((v) => v.tour !== null);
  const help = useView((v) => v.help);
  const worked = useSession((s) => s.report != null);
  useEffect(() => {
    if (!worked) return;
    document.documentElement.classList.add('lettered');
    return fetchAhead();
  }, [worked]);
  useTitle(step, state === 'open');

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
    <div className="shell flex h-dvh flex-col" data-shape={shape} data-step={step.id}>
      <SkipLinks section={step.section} />
      <TopBar />
      <Notices />
      <PrintHead step={step} />
      {inHand(shape) ? (
        <Loaded what="The view">
          <Hand step={step} flat={shape === 'flat'} />
        </Loaded>
      ) : (
        <Desk step={step} shape={shape} />
      )}
      <Told />
      {help && (
        <Loaded what="The sheet of keys">
          <HelpSheet steps={STEPS} />
        </Loaded>
      )}
      {tour && (
        <Loaded what="The tour">
          <Tour />
        </Loaded>
      )}
    </div>
  );
}

/** Past the rail and the tools for those who go by keyboard. */
function SkipLinks({ section }: { section: boolean }) {
  const links = [
    ['view', 'Skip to the view'],
    ...(section ? [['section-strip', 'Skip to the section']] : []),
    ['findings', 'Skip to the findings'],
  ] as const;
  return (
    <nav aria-label="Skip" className="no-print">
      {links.map(([to, words]) => (
        <a
          key={to}
          href={`#${to}`}
          className="bg-ink text-sheet sr-only z-50 p-3 focus:not-sr-only focus:absolute"
          onClick={(event) => {
            event.preventDefault();
            if (to === 'findings') look({ drawer: true, findingsOpen: true });
            requestAnimationFrame(() => document.getElementById(to!)?.focus());
          }}
        >
          {words}
        </a>
      ))}
    </nav>
  );
}

/** Says to the page what of the figures is of before: nothing is drawn anew for it. */
function useBehind(): void {
  useEffect(() => {
    const { dataset } = document.documentElement;
    const say = (hurry: Hurry) => {
      if (hurry === false || hurry === 'first') delete dataset['behind'];
      else dataset['behind'] = findingsWait(hurry) ? 'hand' : 'volts';
    };
    return useSession.subscribe((s, before) => {
      if (s.behind !== before.behind) say(s.behind);
    });
  }, []);
}

/** The title of the page follows the step; the focus goes to the view when another step was chosen. */
function useTitle(step: Step, open: boolean): void {
  // Before it is open there is no plan.
  const name = useSession((s) => (s.plan as Plan | undefined)?.name ?? '');
  const before = useRef<string | null>(null);
  useEffect(() => {
    if (!open) return;
    document.title = `${step.name}, ${name} · Anabatic`;
    if (before.current !== null && before.current !== step.id)
      document.getElementById('view')?.focus({ preventScroll: true });
    before.current = step.id;
  }, [step, name, open]);
}

/** How long after the first figures the other steps are fetched, ms: nobody waits for anything then. */
const AHEAD = 4000;

/** Fetches every step while the server is there, so that each can be looked at when it is away. */
function fetchAhead(): () => void {
  const timer = setTimeout(() => {
    for (const step of STEPS) void step.load?.().catch(() => undefined);
    const more = [
      () => import('../land/cards.js'),
      () => import('../../formats/projection.js'),
      () => import('./FindingDetail.js'),
      () => import('./HelpSheet.js'),
    ];
    for (const load of more) void load().catch(() => undefined);
    void import('../../session/ready.js').then((m) => m.readyForAway());
  }, AHEAD);
  return () => clearTimeout(timer);
}

/** Keys that work on every step. */
function useShellKeys(steps: readonly Step[]): void {
  const id = useSession((s) => s.id);
  useKeys([
    ...steps.map((s) => [s.key, () => goTo(s.id, id)] as const),
    ...bound('everywhere', {
      undo,
      redo,
      help: () => look({ help: true }),
      next: () => walkFindings(1),
      last: () => walkFindings(-1),
    }),
  ]);
}
