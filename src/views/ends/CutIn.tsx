/** Cutting a gate into a fence that stands: what changes, and the steps in their order. */
import { useState } from 'react';
import { say } from '../../core/base/units.js';
import { figure } from '../../core/plan/catalogue.js';
import type { Line } from '../../core/plan/schema.js';
import { useCatalogue } from '../../session/catalogue.js';
import { useSession } from '../../session/session.js';
import { useView } from '../../session/view.js';
import { QuantityField } from '../../ui/parts/controls.js';
import { Num, useUnits } from '../../ui/parts/Num.js';

export function CutIn({ line }: { line: Line }) {
  const cat = useCatalogue();
  const units = useUnits();
  const cursor = useView((v) => v.cursor) ?? 0;
  const report = useSession((s) => s.report?.lines[line.id]);
  const [width_m, setWidth] = useState(3.6);
  const run = report?.runs.findIndex((r) => cursor > r.from_m && cursor < r.to_m) ?? -1;
  const own = report?.runs[run];
  return (
    <section aria-label="Cutting a gate into a standing fence" className="mt-6">
      <h3 className="heading mb-1">Cutting a gate into a standing fence</h3>
      <div className="flex flex-wrap items-center gap-x-4 gap-y-2">
        <span>
          Where the section points: <Num value={cursor} q="along" />
        </span>
        <QuantityField
          label="opening"
          q="tape"
          min={0.8}
          max={12}
          value={width_m}
          onCommit={setWidth}
        />
      </div>
      {!own || !report ? (
        <p className="label mt-1">Point into a run of {line.name} on the section below.</p>
      ) : (
        <>
          <p className="mt-2">
            One run of <Num value={own.to_m - own.from_m} q="length" /> becomes two of{' '}
            <Num value={Math.max(0, cursor - width_m / 2 - own.from_m)} q="length" /> and{' '}
            <Num value={Math.max(0, own.to_m - cursor - width_m / 2)} q="length" />. All tension is
            let off; each of the two is strained anew
            {Math.min(cursor - own.from_m, own.to_m - cursor) < figure(cat, 'wire.springRunMax') &&
            !line.tensioner
              ? ', with a tensioner in each strand of the short one'
              : ''}
            . The strands end on both sides: jumpers join them at each post, a cable under the gate
            carries the volts on, one for the earth strands too.
          </p>
          <ol className="mt-2 max-w-[44rem] list-decimal space-y-0.5 pl-5 text-[0.929rem]">
            <li>Switch the unit off and prove it off. Stock out of reach.</li>
            <li>
              Mark both posts, {say(width_m, 'tape', units)} apart between their faces: measure the
              leaf with its hinges.
            </li>
            <li>
              Set BOTH gate posts and their braces in the line of the standing fence, strands
              untouched; wait until they hold.
            </li>
            <li>
              Staple every strand off to both gate posts, tight; figure of the pull now:{' '}
              <Num value={report.ends.find((e) => e.side === 'after')?.pull_N ?? 0} q="force" /> at
              the coldest.
            </li>
            <li>Fix a hold on every wire on both sides of the cut, and stand to the side.</li>
            <li>
              Let off what tensioners there are. Cut from the middle strand outwards, the top and
              the bottom one last; hold both ends of each as it is cut.
            </li>
            <li>Tie each off at its post; strain both runs again; jumpers, cable, earth cable.</li>
            <li>Hang the gate. Take every offcut home, counted. Switch on, read both sides.</li>
          </ol>
        </>
      )}
    </section>
  );
}
