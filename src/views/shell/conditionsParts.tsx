/** The pieces of the bar above: what the figures obey, undo, and what is saved. */
import { CircleHelp, Redo2, Undo2 } from 'lucide-react';
import { say } from '../../core/base/units.js';
import { seasonsOf, type SeasonId } from '../../core/plan/catalogue.js';
import { useCatalogue } from '../../session/catalogue.js';
import { canRedo, canUndo, commit, redo, saveOf, undo, useSession } from '../../session/session.js';
import { usePhotos } from '../../session/photos.js';
import { useReach } from '../../session/reach.js';
import { useRecords } from '../../session/records.js';
import { look, useViewOf, type Scheme, type Warmth } from '../../session/view.js';
import { Button } from '../../ui/parts/Button.js';
import { Choice, Select } from '../../ui/parts/controls.js';
import { SEASON_ORDER, SEASON_WORDS } from './conditions.js';

export function Property() {
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

export function SeasonChoice() {
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

export function WarmthChoice({ short }: { short: boolean }) {
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

export function UnitsChoice() {
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

export function SchemeChoice() {
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

export function UndoRedo() {
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

export function Help() {
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

const clock = (iso: string) =>
  new Date(iso).toLocaleTimeString([], { hour: '2-digit', minute: '2-digit' });

/**
 * In the bar it takes the room that is left, and is cut short rather than push what stands beside it.
 * @param short by a mark; @param silent in a sheet: said elsewhere on the screen already
 */
export function SavedState({
  short = false,
  silent = false,
}: {
  short?: boolean;
  silent?: boolean;
}) {
  const plan = useSession(saveOf);
  const at = useSession((s) => s.book.savedAt);
  const full = useSession((s) => s.book.full);
  const revision = useSession((s) => s.book.revision);
  const changes = useSession((s) => s.book.pending.length);
  const records = useRecords((r) => r.pending.length);
  const photos = usePhotos((p) => Object.keys(p.waiting).length);
  const away = useReach((r) => r.away);
  const waiting = changes + records + photos;
  const save = waiting > 0 && away ? 'waiting' : plan === 'saved' && waiting > 0 ? 'saving' : plan;
  const time = at ? clock(at) : '';
  const text = {
    saved: away ? `saved; no server since ${clock(away)}` : time ? `saved ${time}` : 'saved',
    saving: 'saving …',
    waiting: `not saved yet: ${waiting} kept in this ${full ? 'tab alone' : 'browser'}${away ? `, no server since ${clock(away)}` : ''}`,
  }[save];
  return (
    <span
      {...(silent ? {} : { role: 'status', 'data-save': save, 'data-revision': revision })}
      title={short ? undefined : text}
      className={`label px-1 ${short || silent ? '' : 'w-0 min-w-28 grow truncate text-right'} ${save === 'waiting' ? 'text-stop font-semibold' : ''}`}
    >
      {short ? (
        <>
          <span className="sr-only">{text}</span>
          <span aria-hidden>
            {
              {
                saved: away ? '✓ away' : '✓',
                saving: '…',
                waiting: `${waiting} wait${waiting === 1 ? 's' : ''}`,
              }[save]
            }
          </span>
        </>
      ) : (
        text
      )}
    </span>
  );
}
