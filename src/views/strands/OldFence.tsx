import { useState } from 'react';
import { crossingsOf, thingsOf } from '../../core/land/things.js';
import type { Line } from '../../core/plan/schema.js';
import type { LineReport } from '../../core/report/schema.js';
import { oldFence, withOffsets, withPair } from '../../core/strands/retrofit.js';
import { isBarbed } from '../../core/wire/bottom.js';
import { Caution, Part, Select, Check } from '../../ui/parts/controls.js';
import { Num } from '../../ui/parts/Num.js';
import { useCatalogue } from '../../session/catalogue.js';
import { restring } from '../../core/edit/joining.js';
import { commit, refuse, useSession } from '../../session/session.js';
import { Button } from '../../ui/parts/Button.js';

/** Start from a fence that stands: keep its strands, move some, and hold stock off it with offsets. */
export function OldFence({ line, report }: { line: Line; report: LineReport | undefined }) {
  const cat = useCatalogue();
  const things = useSession((s) => s.plan.things);
  const [kind, setKind] = useState('barbed3');
  const kept = line.strands.filter((s) => s.kept);
  const need = report?.requirement ?? null;
  const crossings = thingsOf({ things }, 'oldFence').map((old) => ({
    old,
    count: crossingsOf(line, old).length,
  }));
  const live = line.strands.filter((s) => s.duty === 'live').length;
  const begin = () =>
    commit(`old fence on ${line.name}`, (d) => {
      const l = d.lines[line.id]!;
      l.strands = oldFence(kind, cat);
      l.standing = true;
    });
  const hold = (words: string, make: typeof withOffsets) => {
    if (!need) return refuse('Say first who stands at this line, under “What it asks”.');
    const next = make(line.strands, need, cat);
    if ('refused' in next) return refuse(next.refused);
    commit(`${words} on ${line.name}`, (d) => {
      restring(
        d,
        line.id,
        next.map((s) => ({ ...s })),
      );
    });
  };
  return (
    <Part title="Start from an old fence">
      <ol className="max-w-[640px] list-decimal space-y-3 pl-5">
        <li>
          Say what stands. Its strands replace those on the bench, cold and kept; drag them to where
          they are, or to where you will move them.
          <div className="mt-1 flex flex-wrap items-center gap-2">
            <Select
              label="What stands"
              value={kind}
              options={Object.entries(cat.oldFences).map(([k, o]) => [k, o.name] as const)}
              onChange={setKind}
            />
            <Button onClick={begin}>Start from it</Button>
            <Check
              label="its posts stand and are sound"
              checked={line.standing ?? false}
              onChange={(on) =>
                commit(`old posts of ${line.name}`, (d) => {
                  if (on) d.lines[line.id]!.standing = true;
                  else delete d.lines[line.id]!.standing;
                })
              }
            />
          </div>
          <p className="label mt-1">{cat.oldFences[kind]!.why}</p>
        </li>
        <li>
          Hold stock off it with live strands on brackets: the fewest that meet each kind of animal
          with nose and chest and close the gaps that are too wide.
          <div className="mt-1">
            <Button disabled={kept.length === 0} onClick={() => hold('live offsets', withOffsets)}>
              Add live offsets
            </Button>
          </div>
        </li>
        <li>
          Or make a pair of two barbed strands: spread, a live strand between them and one above,
          the upper barbed strand bonded as their earth. It also stings where the soil is dry.
          <div className="mt-1">
            <Button
              disabled={kept.filter((s) => isBarbed(s, cat)).length < 2}
              onClick={() => hold('a live pair', withPair)}
            >
              Make a live pair
            </Button>
          </div>
        </li>
      </ol>
      <p className="mt-3">
        {kept.length} kept, {line.strands.length - kept.length} new.{' '}
        {kept.some((s) => isBarbed(s, cat)) && (
          <>
            Live strands stay{' '}
            <Num
              value={need?.offBarbed_m ?? 0.15}
              q="height"
              from={{
                kind: 'default',
                title: 'Live off barbed wire',
                inputs: [
                  {
                    name: 'Apart',
                    path: 'defaults.posts.gap.barbed.value',
                    quantity: 'height',
                  },
                ],
              }}
            />{' '}
            or more off the barbed wire, in the air.
          </>
        )}
      </p>
      {crossings.some((c) => c.count > 0) && (
        <ul className="mt-1">
          {crossings
            .filter((c) => c.count > 0)
            .map((c) => (
              <li key={c.old.id}>
                Crosses {c.old.name} {c.count === 1 ? 'once' : `${c.count} times`}:{' '}
                <Num
                  value={c.count * live}
                  q="count"
                  from={{
                    kind: 'formula',
                    title: 'Sleeves at crossings',
                    formula: 'crossings x live strands',
                    source: 'An insulating sleeve on the old wire where each live strand passes it',
                  }}
                />{' '}
                sleeves, counted on Supplies.
              </li>
            ))}
        </ul>
      )}
      <p className="label mt-2">
        Ties between live strands that pass barbed wire are sleeved too. Kept strands and standing
        posts are not bought.
      </p>
      <Caution>
        Barbed wire is never made live: whoever is caught in it cannot get free. The program refuses
        it. Old posts that lean or rot carry no tight wire: look at each before you rely on it.
      </Caution>
    </Part>
  );
}
