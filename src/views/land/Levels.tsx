import { useId, useState } from 'react';
import { say } from '../../core/base/units.js';
import { planLength, stations } from '../../core/plan/geometry.js';
import { levelsFromRises, readLevels } from '../../core/plan/levels.js';
import type { Line } from '../../core/plan/schema.js';
import { zAt } from '../../core/terrain/profile.js';
import { QuantityField } from '../../ui/parts/controls.js';
import { useUnits } from '../../ui/parts/Num.js';
import { useProfile } from '../../ui/parts/profile.js';
import { commit } from '../../session/session.js';
import { Button } from '../../ui/parts/Button.js';

/** Heights along the line by hand: worked out only while they are looked at. */
export function Levels({ line }: { line: Line }) {
  const [open, setOpen] = useState(false);
  return (
    <details open={open} onToggle={(e) => setOpen(e.currentTarget.open)}>
      <summary className="label cursor-pointer">Heights by hand</summary>
      {open && <ByHand line={line} />}
    </details>
  );
}

/** A rise for each leg, or a traverse with rope and level. */
function ByHand({ line }: { line: Line }) {
  const id = useId();
  const units = useUnits();
  const [text, setText] = useState('');
  const [error, setError] = useState<string | null>(null);
  const profile = useProfile(line);
  const start = zAt(profile, 0);
  const at = stations(line.vertices);
  const rises = at.slice(1).map((s, i) => zAt(profile, s) - zAt(profile, at[i]!));
  const put = (words: string, levels: Line['levels'] | null) =>
    commit(`${words} of ${line.name}`, (d) => {
      if (levels) d.lines[line.id]!.levels = levels;
      else delete d.lines[line.id]!.levels;
    });
  return (
    <>
      <p className="label">
        {line.levels
          ? `Levelled by hand at ${line.levels.length} marks, to ${say(line.levels.at(-1)!.at_m, 'tape', units)} of ${say(planLength(line), 'tape', units)}.`
          : 'Now from the ground of the property.'}
      </p>
      {rises.length <= 12 && (
        <div className="mt-1 flex flex-col gap-1">
          {rises.map((rise, i) => (
            <QuantityField
              key={i}
              label={`Rise of leg ${i + 1}`}
              q="tape"
              min={-500}
              max={500}
              width="w-16"
              value={rise}
              onCommit={(r) =>
                put(
                  'rises',
                  levelsFromRises(
                    line,
                    start,
                    rises.map((x, k) => (k === i ? r : x)),
                  ),
                )
              }
            />
          ))}
        </div>
      )}
      <label htmlFor={id} className="label mt-2 block">
        Traverse: one row a mark, distance and rise from the last ({units === 'metric' ? 'm' : 'ft'}
        )
      </label>
      <textarea
        id={id}
        className="field figure h-20 w-full"
        placeholder={'10 0.35\n12.5 -0.4'}
        value={text}
        aria-invalid={error !== null}
        aria-describedby={error ? `${id}-error` : undefined}
        onChange={(e) => setText(e.target.value)}
      />
      {error && (
        <p id={`${id}-error`} role="alert" className="text-stop text-xs">
          {error}
        </p>
      )}
      <div className="flex gap-1">
        <Button
          onClick={() => {
            const read = readLevels(text, start, units === 'metric' ? 1 : 0.3048);
            if (typeof read === 'string') return setError(read);
            const over = read.at(-1)!.at_m - planLength(line);
            if (over > 1)
              return setError(
                `The traverse is ${say(over, 'tape', units)} longer than the line in plan`,
              );
            setError(null);
            setText('');
            put('levels', read);
          }}
        >
          Use the traverse
        </Button>
        {line.levels && <Button onClick={() => put('levels', null)}>Back to the ground</Button>}
      </div>
    </>
  );
}
