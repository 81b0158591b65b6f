import { Fence, MousePointer2, PenLine, Zap } from 'lucide-react';
import { useId, useState } from 'react';
import { useSession } from '../../ui/session/session.js';
import { chooseLine, useView, type Tool } from '../../ui/session/view.js';
import { MEASURED, Num, WhereFrom } from '../../ui/parts/Num.js';
import { readTyped } from '../../core/plan/typed.js';
import { Files } from './Files.js';
import { takeTool } from './actions.js';
import { LineCard } from './LineCard.js';
import { penAt, press, useSketch } from './sketch.js';
import { ThingCard } from './ThingCard.js';

const TOOLS: readonly { tool: Tool; name: string; key: string; icon: typeof Zap }[] = [
  { tool: 'select', name: 'Choose', key: 'V', icon: MousePointer2 },
  { tool: 'draw', name: 'Draw', key: 'D', icon: PenLine },
  { tool: 'gate', name: 'Gate', key: 'G', icon: Fence },
  { tool: 'energiser', name: 'Energiser', key: 'E', icon: Zap },
];

/** Tools, what is chosen, and the property's files. */
export function LandPanel() {
  const { tool, line, thing } = useView();
  const exists = useSession((s) => (line ? line in s.plan.lines : false));
  const thingExists = useSession((s) => {
    if (!thing) return false;
    return thing.id in (thing.kind === 'gate' ? s.plan.gates : s.plan.energisers);
  });
  return (
    <div
      className="border-rule bg-panel no-print w-[292px] shrink-0 overflow-y-auto border-r p-3 max-[700px]:w-full"
      tabIndex={-1}
    >
      <div role="toolbar" aria-label="Tools" className="grid grid-cols-2 gap-1">
        {TOOLS.map(({ tool: t, name, key, icon: Icon }) => (
          <button
            key={t}
            className="button"
            aria-pressed={tool === t}
            onClick={() => takeTool(t)}
            title={`${name} (${key})`}
          >
            <Icon size={15} aria-hidden />
            {name}
          </button>
        ))}
      </div>
      <ToolHint tool={tool} />
      {tool === 'draw' && <TypedLeg />}
      <div className="border-rule mt-3 border-t pt-3">
        {thing && thingExists ? (
          <ThingCard thing={thing} />
        ) : line && exists ? (
          <LineCard id={line} />
        ) : (
          <Overview />
        )}
      </div>
    </div>
  );
}

function ToolHint({ tool }: { tool: Tool }) {
  const words = {
    select:
      'Press a line to choose it; drag a vertex, or the dot in the middle of a leg for a new one.',
    draw: 'Press from point to point. It catches on vertices and lines. Enter, or the last point again, ends the line.',
    gate: 'Press where the gate stands on a line.',
    energiser: 'Press where the unit stands; its lead-out goes to the nearest line.',
  }[tool];
  return <p className="label mt-2">{words}</p>;
}

/** Draws by typing: the twin of pressing on the map. */
function TypedLeg() {
  const id = useId();
  const [text, setText] = useState('');
  const [error, setError] = useState<string | null>(null);
  const sketch = useSketch();
  const lines = useSession((s) => s.plan.lines);
  const from = penAt(sketch, lines);
  const units = useSession((s) => s.plan.units);
  return (
    <form
      className="mt-2"
      onSubmit={(event) => {
        event.preventDefault();
        const p = readTyped(text, from, units === 'metric' ? 1 : 0.3048);
        if (typeof p === 'string') return setError(p);
        setError(null);
        setText('');
        press(p, 0);
      }}
    >
      <label className="label block" htmlFor={id}>
        {from ? 'Next leg: distance @ bearing, or a place' : 'First place: east, north'} (
        {units === 'metric' ? 'm' : 'ft'})
      </label>
      <span className="flex gap-1">
        <input
          id={id}
          className="field figure min-w-0 flex-1"
          placeholder={from ? '85 @ 112' : '0, 0'}
          value={text}
          aria-invalid={error !== null}
          aria-describedby={error ? `${id}-error` : undefined}
          onChange={(event) => setText(event.target.value)}
        />
        <button className="button">Put</button>
      </span>
      {error && (
        <p id={`${id}-error`} role="alert" className="text-live text-xs">
          {error}
        </p>
      )}
    </form>
  );
}

/** The whole property, when nothing is chosen. */
function Overview() {
  const plan = useSession((s) => s.plan);
  const report = useSession((s) => s.report);
  return (
    <>
      <h2 className="heading">{plan.name}</h2>
      {plan.invented && <p className="label">Everything in this property is made up.</p>}
      <p className="label mt-2 flex justify-between">
        <span>line</span>
        <span>
          over ground
          <WhereFrom origin={MEASURED} shown="the length of each line" />
        </span>
      </p>
      <ul aria-label="Lines">
        {Object.values(plan.lines).map((l) => (
          <li key={l.id}>
            <button
              className="hover:bg-chosen flex w-full cursor-pointer justify-between gap-2 px-1 py-0.5 text-left"
              onClick={() => chooseLine(l.id)}
            >
              <span>{l.name}</span>
              <Num value={report?.lines[l.id]?.ground_m} q="length" />
            </button>
          </li>
        ))}
        {Object.keys(plan.lines).length === 0 && (
          <li className="label">No line yet: draw one, or bring a walked one in below.</li>
        )}
      </ul>
      {report && (
        <p className="border-ink mt-1 flex justify-between border-t pt-1 font-semibold">
          <span>All lines over ground</span>
          <Num
            value={report.totals.ground_m}
            q="far"
            from={{
              kind: 'measured',
              title: 'Length over ground of all lines',
              formula: 'sum of sqrt(ds² + dz²)',
              source: 'Ground sampled every metre',
            }}
          />
        </p>
      )}
      <Files />
    </>
  );
}
