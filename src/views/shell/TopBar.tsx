import { CircleHelp, Redo2, Undo2 } from 'lucide-react';
import { seasonsOf, type SeasonId } from '../../core/plan/catalogue.js';
import { useCatalogue } from '../../session/catalogue.js';
import { say } from '../../core/base/units.js';
import { Choice, Select } from '../../ui/parts/controls.js';
import { canRedo, canUndo, commit, redo, undo, useSession, saveOf } from '../../session/session.js';
import { look, useViewOf, type Scheme, type Warmth } from '../../session/view.js';
import { Button } from '../../ui/parts/Button.js';

const SEASON_WORDS: readonly (readonly [SeasonId, string])[] = [
  ['dry', 'driest'],
  ['today', 'today'],
  ['wet', 'wettest'],
  ['weedy', 'not cut'],
  ['frozen', 'frozen'],
];

/** Property, season, temperature, units, undo and what is saved. */
export function TopBar() {
  const cat = useCatalogue();
  const plan = useSession((s) => s.plan);
  const undoable = useSession(canUndo);
  const redoable = useSession(canRedo);
  const { season, warmth, scheme } = useViewOf('season', 'warmth', 'scheme');
  const celsius = (c: number) => say(c, 'temperature', plan.units);
  return (
    <header className="border-ink bg-panel no-print flex flex-wrap items-center gap-x-4 gap-y-1 border-b px-3 py-1.5">
      <h1 className="mr-1 font-semibold">
        <a href="/" className="underline-offset-4 hover:underline">
          {plan.name}
          {plan.invented && (
            <span className="label ml-2 font-normal">invented, for trying out</span>
          )}
        </a>
      </h1>
      <Choice<SeasonId>
        label="Season"
        value={season}
        options={SEASON_WORDS.filter(([s]) => seasonsOf(plan, cat).includes(s))}
        onChange={(s) => look({ season: s })}
      />
      <Choice<Warmth>
        label="Temperature"
        value={warmth}
        options={[
          ['cold', `cold night ${celsius(plan.climate.cold_C)}`],
          ['today', celsius(plan.climate.today_C)],
          ['hot', `hot day ${celsius(plan.climate.hot_C)}`],
        ]}
        onChange={(w) => look({ warmth: w })}
      />
      <Choice
        label="Units"
        value={plan.units}
        options={[
          ['metric', 'm'],
          ['imperial', 'ft'],
        ]}
        onChange={(units) =>
          commit(`units: ${units}`, (draft) => {
            draft.units = units;
          })
        }
      />
      <span className="ml-auto inline-flex items-center gap-1">
        <Button onClick={undo} disabled={!undoable} aria-label="Undo" title="Undo (Ctrl+Z)">
          <Undo2 size={16} aria-hidden />
        </Button>
        <Button onClick={redo} disabled={!redoable} aria-label="Redo" title="Redo (Ctrl+Y)">
          <Redo2 size={16} aria-hidden />
        </Button>
        <SavedState />
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
        <Button
          onClick={() => look({ help: true })}
          aria-label="Keys and help"
          title="Keys and help (?)"
        >
          <CircleHelp size={16} aria-hidden />
        </Button>
      </span>
    </header>
  );
}

function SavedState() {
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
      role="status"
      data-save={save}
      className={`label px-2 ${save === 'waiting' ? 'text-live font-semibold' : ''}`}
    >
      {text}
    </span>
  );
}
