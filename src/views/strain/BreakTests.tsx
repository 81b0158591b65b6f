/** Pieces broken on a bench: the wire alone, and with a joint in it. */
import { useState } from 'react';
import { say } from '../../core/base/units.js';
import { recordOf } from '../../core/plan/catalogue.js';
import { brokenJoint, brokenWire, strengthOf, type Broken } from '../../core/plan/ownFigures.js';
import type { BreakTest } from '../../core/plan/schema.js';
import { commit, useSession } from '../../session/session.js';
import { Button } from '../../ui/parts/Button.js';
import { QuantityField, Select } from '../../ui/parts/controls.js';
import { DataTable } from '../../ui/parts/DataTable.js';
import { Num, useUnits } from '../../ui/parts/Num.js';
import type { Strained } from './strained.js';

const NO_TESTS: readonly BreakTest[] = [];

export function BreakTests({ of: { wire, cat } }: { of: Strained }) {
  const units = useUnits();
  const tests = useSession((s) => s.plan.breakTests) ?? NO_TESTS;
  const [joint, setJoint] = useState('');
  const [broken, setBroken] = useState(NaN);
  const [round, setRound] = useState(0);
  const plain = recordOf(cat.wires, wire);
  const strength = (id: string) => strengthOf(recordOf(cat.wires, id));
  const groups = [...new Set(tests.map((t) => t.joint))];
  const spread = (b: Broken, q: 'force' | 'percent') =>
    b.spread === null ? 'one test tells no spread' : `± ${say(b.spread, q, units)} of ${b.tests}`;
  const alone = brokenWire(tests, wire);
  return (
    <section aria-label="Break tests" className="mt-4">
      <h3 className="heading">Own break tests</h3>
      <p className="max-w-[46rem]">
        Pull a piece of {plain.name.toLowerCase()} until it breaks, then one with your own joint in
        it: what they bear takes the place of the figures above.
      </p>
      <div className="my-1 flex flex-wrap items-center gap-x-5 gap-y-2">
        <Select
          label="Broken"
          width="max-w-[16rem]"
          value={joint}
          options={[
            ['', 'the wire alone'],
            ...Object.entries(cat.joints).map(
              ([id, j]) => [id, `with ${j.name.toLowerCase()}`] as const,
            ),
          ]}
          onChange={setJoint}
        />
        <QuantityField
          key={round}
          label="at"
          q="force"
          min={50}
          max={50_000}
          width="w-20"
          value={broken}
          onCommit={setBroken}
        />
        <Button
          disabled={!(broken > 0)}
          onClick={() => {
            commit(`break test of ${plain.name}`, (d) => {
              d.breakTests = [
                ...(d.breakTests ?? []),
                { wire, joint: joint || null, break_N: broken },
              ];
            });
            setBroken(NaN);
            setRound(round + 1);
          }}
        >
          Add it
        </Button>
      </div>
      {alone && (
        <p data-broken-alone>
          {plain.name} alone: <Num value={alone.mean} q="force" /> ({spread(alone, 'force')}), by
          its section <Num value={strength(wire)} q="force" />.
        </p>
      )}
      {groups.flatMap((id) => {
        const kept = id === null ? null : brokenJoint(tests, id, strength);
        return kept
          ? [
              <p key={id} data-broken-joint>
                {recordOf(cat.joints, id!).name}: <Num value={kept.mean} q="percent" /> of the wire
                ({spread(kept, 'percent')}).
                {kept.mean > 1
                  ? ' More than the wire itself: the spread of the tests; it is reckoned as whole.'
                  : ''}
              </p>,
            ]
          : [];
      })}
      {tests.length > 0 && (
        <DataTable<BreakTest>
          label="Break tests"
          className="!w-auto"
          rows={tests}
          keyOf={(_, i) => i}
          columns={[
            { name: 'wire', cell: (t) => recordOf(cat.wires, t.wire).name },
            { name: 'joint', cell: (t) => (t.joint ? recordOf(cat.joints, t.joint).name : 'none') },
            { name: 'broke at', n: true, cell: (t) => <Num value={t.break_N} q="force" /> },
            {
              name: 'take away',
              quiet: true,
              cell: (_, i) => (
                <Button
                  aria-label={`Take break test ${i + 1} away`}
                  onClick={() =>
                    commit('break test taken away', (d) => {
                      d.breakTests = (d.breakTests ?? []).filter((_t, k) => k !== i);
                      if (d.breakTests.length === 0) delete d.breakTests;
                    })
                  }
                >
                  take away
                </Button>
              ),
            },
          ]}
        />
      )}
    </section>
  );
}
