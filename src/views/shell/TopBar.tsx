import { lazy, Suspense } from 'react';
import { inHand, useShape } from '../../session/shape.js';
import { look, useViewOf } from '../../session/view.js';
import { Button } from '../../ui/parts/Button.js';
import {
  Help,
  Property,
  SavedState,
  SchemeChoice,
  SeasonChoice,
  UndoRedo,
  UnitsChoice,
  WarmthChoice,
} from './conditionsParts.js';
import { Who } from './Who.js';
import { FindingCounts } from './Findings.js';

const LowBar = lazy(() => import('./LowBar.js').then((m) => ({ default: m.LowBar })));

/** Property, season, temperature, units, undo and what is saved; in the hand one row and a sheet. */
export function TopBar() {
  const shape = useShape();
  if (inHand(shape))
    return (
      <Suspense fallback={<header className="h-[46px]" />}>
        <LowBar />
      </Suspense>
    );
  return (
    <header className="border-ink bg-panel no-print flex flex-wrap items-center gap-x-3 gap-y-1 border-b px-3 py-1">
      <Property />
      <SeasonChoice />
      <WarmthChoice short={shape === 'narrow'} />
      <UnitsChoice />
      {/* What is saved grows and shrinks with its words: before Undo, so that Undo stays under the pointer that presses it. */}
      <span className="inline-flex flex-1 items-center gap-1">
        <SavedState />
        <UndoRedo />
        <Who />
        <SchemeChoice />
        <Help />
        {shape === 'narrow' && <DrawerBadge />}
      </span>
    </header>
  );
}

/** Opens and closes the drawer of findings, and counts them. */
function DrawerBadge() {
  const { drawer } = useViewOf('drawer');
  return (
    <Button aria-expanded={drawer} title="Findings" onClick={() => look({ drawer: !drawer })}>
      <FindingCounts />
    </Button>
  );
}
