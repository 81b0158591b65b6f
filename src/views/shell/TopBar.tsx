import { CircleHelp, Redo2, Settings2, Undo2 } from 'lucide-react';
import { Dialog } from 'radix-ui';
import { say } from '../../core/base/units.js';
import { seasonsOf, type SeasonId } from '../../core/plan/catalogue.js';
import { useCatalogue } from '../../session/catalogue.js';
import { canRedo, canUndo, commit, redo, saveOf, undo, useSession } from '../../session/session.js';
import { inHand, useShape } from '../../session/shape.js';
import { look, useViewOf, type Scheme, type Warmth } from '../../session/view.js';
import { Button } from '../../ui/parts/Button.js';
import { Choice, Select } from '../../ui/parts/controls.js';
import { SEASON_ORDER, SEASON_WORDS } from './conditions.js';
import { FindingCounts } from './Findings.js';

/** Property, season, temperature, units, undo and what is saved; in the hand one row and a sheet. */
export function TopBar() {
  const shape = useShape();
  if (inHand(shape)) return <LowBar />;
  return (
    <header className="border-ink bg-panel no-print flex flex-wrap items-center gap-x-3 gap-y-1 border-b px-3 py-1">
      <Property />
      <SeasonChoice />
      <WarmthChoice short={shape === 'narrow'} />
      <UnitsChoice />
      <span className="ml-auto inline-flex items-center gap-1">
        <UndoRedo />
        <SavedState />
        <SchemeChoice />
        <Help />
        {shape === 'narrow' && <DrawerBadge />}
      </span>
    </header>
  );
}

/** One row: the property, what the figures obey, undo; the rest in a sheet. */
function LowBar() {
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

function Property() {
  const { name, invented } = useSession((s) => s.plan);
  return (
    <h1 className="min-w-0 truncate font-semibold">
      <a href="/" className="underline-offset-4 hover:underline" title="All properties">
        <bdi>{name}</bdi>
        {invented && <span className="label ml-2 font-normal">invented</span>}
      </a>
    </h1>
  );
}

function SeasonChoice() {
  const cat = useCatalogue();
  const plan = useSession((s) => s.plan);
  const { season } = useViewOf('season');
  const known = seasonsOf(plan, cat);
  return (
    <Choice<SeasonId>
      label="Season"
      value={season}
      options={SEASON_ORDER.filter((s) => known.includes(s)).map((s) => [s, SEASON_WORDS[s]])}
      onChange={(s) => look({ season: s })}
    />
  );
}

function WarmthChoice({ short }: { short: boolean }) {
  const { climate, units } = useSession((s) => s.plan);
  const { warmth } = useViewOf('warmth');
  const celsius = (c: number) => say(c, 'temperature', units);
  return (
    <Choice<Warmth>
      label="Temperature"
      value={warmth}
      options={[
        ['cold', `${short ? '' : 'cold night '}${celsius(climate.cold_C)}`],
        ['today', celsius(climate.today_C)],
        ['hot', `${short ? '' : 'hot day '}${celsius(climate.hot_C)}`],
      ]}
      onChange={(w) => look({ warmth: w })}
    />
  );
}

function UnitsChoice() {
  const units = useSession((s) => s.plan.units);
  return (
    <Choice
      label="Units"
      value={units}
      options={[
        ['metric', 'm'],
        ['imperial', 'ft'],
      ]}
      onChange={(now) =>
        commit(`units: ${now}`, (draft) => {
          draft.units = now;
        })
      }
    />
  );
}

function SchemeChoice() {
  const { scheme } = useViewOf('scheme');
  return (
    <Select<Scheme>
      label="Scheme"
      hideLabel
      value={scheme}
      options={[
        ['light', 'light'],
        ['dark', 'dark'],
        ['sun', 'sun'],
      ]}
      onChange={(s) => look({ scheme: s })}
    />
  );
}

function UndoRedo() {
  const undoable = useSession(canUndo);
  const redoable = useSession(canRedo);
  return (
    <>
      <Button onClick={undo} disabled={!undoable} aria-label="Undo" title="Undo (Ctrl+Z)">
        <Undo2 size={16} aria-hidden />
      </Button>
      <Button onClick={redo} disabled={!redoable} aria-label="Redo" title="Redo (Ctrl+Y)">
        <Redo2 size={16} aria-hidden />
      </Button>
    </>
  );
}

function Help() {
  return (
    <Button
      onClick={() => look({ help: true })}
      aria-label="Keys and help"
      title="Keys and help (?)"
    >
      <CircleHelp size={16} aria-hidden />
    </Button>
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

/** @param short by a mark; @param silent said elsewhere on the screen already */
function SavedState({ short = false, silent = false }: { short?: boolean; silent?: boolean }) {
  const save = useSession(saveOf);
  const at = useSession((s) => s.book.savedAt);
  const waiting = useSession((s) => s.book.pending.length);
  const full = useSession((s) => s.book.full);
  const time = at
    ? new Date(at).toLocaleTimeString([], { hour: '2-digit', minute: '2-digit' })
    : '';
  const text = {
    saved: time ? `saved ${time}` : 'saved',
    saving: 'saving …',
    waiting: `not saved yet: ${waiting} kept in this ${full ? 'tab alone' : 'browser'}`,
  }[save];
  return (
    <span
      {...(silent ? {} : { role: 'status', 'data-save': save })}
      className={`label px-1 ${save === 'waiting' ? 'text-stop font-semibold' : ''}`}
    >
      {short ? (
        <>
          <span className="sr-only">{text}</span>
          <span aria-hidden>{{ saved: '✓', saving: '…', waiting: `${waiting} ⌛` }[save]}</span>
        </>
      ) : (
        text
      )}
    </span>
  );
}
