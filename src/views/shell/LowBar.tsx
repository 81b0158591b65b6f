import { Settings2, Undo2 } from 'lucide-react';
import { Dialog } from 'radix-ui';
import { say } from '../../core/base/units.js';
import { canUndo, undo, useSession } from '../../session/session.js';
import { useViewOf } from '../../session/view.js';
import { Button } from '../../ui/parts/Button.js';
import { SEASON_WORDS } from './conditions.js';
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

/** One row: the property, what the figures obey, undo; the rest in a sheet. */
export function LowBar() {
  const plan = useSession((s) => s.plan);
  const { season, warmth } = useViewOf('season', 'warmth');
  const undoable = useSession(canUndo);
  return (
    <header className="border-ink bg-panel no-print flex h-[46px] items-center gap-2 border-b px-2">
      <Property />
      <span className="ml-auto inline-flex shrink-0 items-center gap-1">
        <SavedState short />
        <Button
          className="small !min-w-10 justify-center !px-1"
          onClick={undo}
          disabled={!undoable}
          aria-label="Undo"
        >
          <Undo2 size={18} aria-hidden />
        </Button>
        <Dialog.Root>
          <Dialog.Trigger
            className="button small"
            aria-label={`Season ${SEASON_WORDS[season]}, ${say(plan.climate[`${warmth}_C`], 'temperature', plan.units)}: season, temperature, units, undo`}
          >
            <span className="whitespace-nowrap">
              {SEASON_WORDS[season]} · {say(plan.climate[`${warmth}_C`], 'temperature', plan.units)}
            </span>
            <Settings2 size={16} aria-hidden />
          </Dialog.Trigger>
          <Dialog.Portal>
            <Dialog.Overlay className="fixed inset-0 z-40 bg-black/40" />
            <Dialog.Content
              className="bg-panel border-ink fixed inset-x-0 bottom-0 z-50 max-h-[92dvh] space-y-4 overflow-y-auto border-t p-4"
              aria-describedby={undefined}
            >
              <Dialog.Title className="heading">What the figures obey</Dialog.Title>
              <SeasonChoice />
              <WarmthChoice short={false} />
              <div className="flex flex-wrap items-center gap-3">
                <UnitsChoice />
                <SchemeChoice />
                <UndoRedo />
                <Help />
                <Who />
              </div>
              <div className="flex items-center justify-between">
                <SavedState silent />
                <Dialog.Close className="button button-strong">Done</Dialog.Close>
              </div>
            </Dialog.Content>
          </Dialog.Portal>
        </Dialog.Root>
      </span>
    </header>
  );
}
