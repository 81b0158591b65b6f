import { useId, useState } from 'react';
import { readTyped } from '../../core/plan/typed.js';
import { QuantityField, Check } from '../../ui/parts/controls.js';
import { useSession } from '../../session/session.js';
import type { Tool } from '../../session/view.js';
import { endDrawing, penTrail, press, useSketch } from './sketch.js';
import { Button } from '../../ui/parts/Button.js';

/** Draws by typing: the twin of pressing on the map. */
export function DrawPanel({ tool }: { tool: Tool }) {
  const id = useId();
  const [text, setText] = useState('');
  const [error, setError] = useState<string | null>(null);
  const sketch = useSketch();
  const plan = useSession((s) => s.plan);
  const trail = penTrail(sketch, plan);
  const from = trail.at(-1) ?? null;
  const { units } = plan;
  return (
    <div className="mt-2 space-y-2">
      {tool === 'lane' && (
        <QuantityField
          label="Width between the fences"
          q="tape"
          min={0.5}
          max={100}
          width="w-16"
          value={sketch.laneWidth_m}
          onCommit={(m) => useSketch.setState({ laneWidth_m: m })}
        />
      )}
      <form
        onSubmit={(event) => {
          event.preventDefault();
          const p = readTyped(text, from, units === 'metric' ? 1 : 0.3048, trail.at(-2) ?? null);
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
            aria-describedby={error ? `${id}-error` : `${id}-help`}
            onChange={(event) => setText(event.target.value)}
          />
          <Button type="submit">Put</Button>
        </span>
        {error ? (
          <p id={`${id}-error`} role="alert" className="text-stop text-xs">
            {error}
          </p>
        ) : (
          <p id={`${id}-help`} className="label">
            {from ? '85 goes straight on, 85 r and 85 l turn square, @ 12, -4 is a step.' : ''}
          </p>
        )}
      </form>
      <div className="flex flex-wrap items-center gap-2">
        <Check
          label="square to the last leg (R)"
          checked={sketch.square}
          onChange={(on) => useSketch.setState({ square: on })}
        />
        <Button onClick={endDrawing}>Done</Button>
      </div>
    </div>
  );
}
