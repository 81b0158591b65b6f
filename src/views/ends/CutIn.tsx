/** Cutting a gate into a fence that stands: what changes, and the steps in their order. */
import { useState } from 'react';
import { say } from '../../core/base/units.js';
import { addGate } from '../../core/edit/edits.js';
import { figure } from '../../core/plan/catalogue.js';
import type { Line } from '../../core/plan/schema.js';
import type { LineReport } from '../../core/report/schema.js';
import { useCatalogue } from '../../session/catalogue.js';
import { commit, tell, useSession } from '../../session/session.js';
import { look, useView } from '../../session/view.js';
import { AlongField } from '../../ui/parts/AlongField.js';
import { Button } from '../../ui/parts/Button.js';
import { QuantityField } from '../../ui/parts/controls.js';
import { Num, useUnits } from '../../ui/parts/Num.js';

/** A post of the gate and its brace want this much of the run on either side, m. */
const ROOM = 3.5;

export function CutIn({ line }: { line: Line }) {
  const cursor = useView((v) => v.cursor);
  const report = useSession((s) => s.report?.lines[line.id]);
  const [width_m, setWidth] = useState(3.6);
  const half = width_m / 2 + ROOM;
  const roomy = report?.runs.filter((r) => r.to_m - r.from_m > 2 * half) ?? [];
  const held = roomy.find(
    (r) => cursor !== null && cursor > r.from_m + half && cursor < r.to_m - half,
  );
  const run =
    held ?? roomy.reduce((a, b) => (a && a.to_m - a.from_m >= b.to_m - b.from_m ? a : b), roomy[0]);
  return (
    <section aria-label="Cutting a gate into a standing fence" className="mt-6">
      <h3 className="heading mb-1">Cutting a gate into a standing fence</h3>
      {!run || !report ? (
        <p className="label">
          No run of {line.name} has room for a gate of this width and its braces.
        </p>
      ) : (
        <Cut
          report={report}
          line={line}
          run={run}
          at={held ? cursor! : (run.from_m + run.to_m) / 2}
          width_m={width_m}
          onWidth={setWidth}
        />
      )}
    </section>
  );
}

interface CutProps {
  readonly line: Line;
  readonly report: LineReport;
  readonly run: LineReport['runs'][number];
  readonly at: number;
  readonly width_m: number;
  readonly onWidth: (m: number) => void;
}

function Cut(p: CutProps) {
  const cat = useCatalogue();
  const units = useUnits();
  const before = p.at - p.width_m / 2 - p.run.from_m;
  const after = p.run.to_m - p.at - p.width_m / 2;
  const short = Math.min(before, after) < figure(cat, 'wire.springRunMax') && !p.line.tensioner;
  const pull = p.report.ends.find((e) => e.side === 'after')?.pull_N ?? 0;
  return (
    <>
      <div className="flex flex-wrap items-center gap-x-4 gap-y-2">
        <AlongField
          label="Its middle"
          line={p.line}
          report={p.report}
          value={p.at}
          onCommit={(s) => look({ cursor: s })}
        />
        <QuantityField
          label="opening"
          q="tape"
          min={0.8}
          max={12}
          value={p.width_m}
          onCommit={p.onWidth}
        />
        <Button
          onClick={() => {
            commit(
              `put a gate on ${p.line.name}`,
              (d) => void addGate(d, p.line.id, p.at, p.width_m),
            );
            tell(`gate put on ${p.line.name}`);
          }}
        >
          Put it in the plan
        </Button>
      </div>
      <p className="mt-2 max-w-[44rem]">
        One run of <Num value={p.run.to_m - p.run.from_m} q="length" /> becomes two of{' '}
        <Num value={before} q="length" /> and <Num value={after} q="length" />. All tension is let
        off; each of the two is strained anew
        {short ? ', with a tensioner in each strand of the short one' : ''}. The strands end on both
        sides: jumpers tie them at each post, a cable under the gate carries the volts on, one for
        the earth strands too.
      </p>
      <ol className="mt-2 max-w-[44rem] list-decimal space-y-0.5 pl-5 text-[0.929rem]">
        <li>Switch the unit off and prove it off. Stock out of reach.</li>
        <li>
          Mark both posts, {say(p.width_m, 'tape', units)} apart between their faces: measure the
          leaf with its hinges.
        </li>
        <li>
          Set BOTH gate posts and their braces in the line of the standing fence, strands untouched;
          wait until they hold.
        </li>
        <li>
          Staple every strand off to both posts, tight. Together they pull{' '}
          <Num value={pull} q="force" /> on the coldest night: do it on a warm day.
        </li>
        <li>Put a hold on every wire on both sides of the cut, and stand to the side.</li>
        <li>
          Let off what tensioners there are. Cut from the middle strand outwards, the top and the
          bottom one last; hold both ends of each as it is cut.
        </li>
        <li>Tie each off at its post; strain both runs again; jumpers, cable, earth cable.</li>
        <li>Hang the gate. Take every offcut home, counted. Switch on, read both sides.</li>
      </ol>
    </>
  );
}
