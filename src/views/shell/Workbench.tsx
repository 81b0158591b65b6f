import { lazy, Suspense, useEffect, useState } from 'react';
import { openSession, redo, undo, useSession } from '../../ui/session/session.js';
import { goTo, look, rememberView, STEPS, useView, type Step } from '../../ui/session/view.js';
import { PowerView } from '../power/PowerView.js';
import { SectionStrip } from '../section/SectionStrip.js';
import { SectionView } from '../section/SectionView.js';
import { StrainView } from '../strain/StrainView.js';
import { StrandsView } from '../strands/StrandsView.js';
import { SuppliesView } from '../supplies/SuppliesView.js';
import { Findings } from './Findings.js';
import { HelpSheet, Notices } from './Notices.js';
import { Rail } from './Rail.js';
import { TopBar } from './TopBar.js';

// The map is the heaviest part: loaded only where it is shown.
const LandView = lazy(() => import('../land/LandView.js').then((m) => ({ default: m.LandView })));

const WITH_SECTION: readonly Step[] = ['land', 'section', 'power', 'strain'];

/** One property: rail of steps, the view, the section below, findings beside. */
export function Workbench({ id, step: first }: { id: string; step: string }) {
  const [state, setState] = useState<'opening' | 'open' | string>('opening');
  const step = useView((v) => v.step);

  useEffect(() => {
    rememberView();
    look({ step: STEPS.some((s) => s.id === first) ? (first as Step) : 'land' });
    if (new URLSearchParams(location.search).has('draw')) look({ tool: 'draw' });
    openSession(id).then(
      () => setState('open'),
      (error: Error) => setState(error.message),
    );
    const back = () =>
      look({ step: (location.pathname.split('/')[3] as Step | undefined) ?? 'land' });
    addEventListener('popstate', back);
    return () => removeEventListener('popstate', back);
  }, [id, first]);

  useKeys();

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
        <main
          className="flex min-w-0 flex-1 flex-col"
          aria-label={STEPS.find((s) => s.id === step)?.name}
        >
          <div className="relative min-h-0 flex-1 overflow-auto">
            {step === 'land' && (
              <Suspense fallback={<p className="p-4">Drawing the map …</p>}>
                <LandView />
              </Suspense>
            )}
            {step === 'strands' && <StrandsView />}
            {step === 'section' && <SectionView />}
            {step === 'power' && <PowerView />}
            {step === 'strain' && <StrainView />}
            {step === 'supplies' && <SuppliesView />}
          </div>
          {WITH_SECTION.includes(step) && <SectionStrip />}
        </main>
        <Findings />
      </div>
      <HelpSheet />
    </div>
  );
}

const typing = (target: EventTarget | null): boolean =>
  target instanceof HTMLElement && /^(INPUT|TEXTAREA|SELECT)$/.test(target.tagName);

/** Keys that work on every step. */
function useKeys(): void {
  useEffect(() => {
    const press = (event: KeyboardEvent) => {
      const property = useSession.getState().id;
      if (typing(event.target) || event.altKey || !property) return;
      const ctrl = event.ctrlKey || event.metaKey;
      const key = event.key.toLowerCase();
      if (ctrl && key === 'z') {
        event.preventDefault();
        if (event.shiftKey) redo();
        else undo();
      } else if (ctrl && key === 'y') {
        event.preventDefault();
        redo();
      } else if (!ctrl && event.key === '?') {
        look({ help: true });
      } else if (!ctrl) {
        const step = STEPS.find((s) => s.key === key);
        if (step) goTo(step.id, property);
      }
    };
    addEventListener('keydown', press);
    return () => removeEventListener('keydown', press);
  }, []);
}
