/** Cut-out switches: which to open in which order when a fault is looked for, and what that saves. */
import { useState } from 'react';
import { switchIn } from '../../core/edit/joining.js';
import { stretchesNear, thingsOf } from '../../core/land/things.js';
import { figure } from '../../core/plan/catalogue.js';
import type { Plan } from '../../core/plan/schema.js';
import type { SearchOpening } from '../../core/wiring/cutouts.js';
import { inOrder, USUAL_WIDTH } from '../../core/wiring/crossings.js';
import type { Place } from '../../core/wiring/place.js';
import { Asked } from '../../ui/parts/Asked.js';
import { useCatalogue } from '../../session/catalogue.js';
import { usePower } from '../../session/power.js';
import { commit, tell, useSession } from '../../session/session.js';
import { look } from '../../session/view.js';
import { Button } from '../../ui/parts/Button.js';
import { Part, QuantityField } from '../../ui/parts/controls.js';
import { DataTable } from '../../ui/parts/DataTable.js';
import { Num } from '../../ui/parts/Num.js';
import type { Wired } from './fence.js';
import { Where } from './Where.js';
import { SAVES } from './origins.js';

export function SwitchesTab({ fences }: { fences: readonly Wired[] }) {
  const cat = useCatalogue();
  const lines = useSession((s) => s.plan.lines);
  const units = useSession((s) => s.plan.energisers);
  const [part, setPart] = useState(figure(cat, 'search.part'));
  const answer = usePower(`cut-outs ${part}`, (api) => api.cutOuts(part), 'cut-outs');
  const { value } = answer;
  const places = fences.flatMap((f) => f.places);
  const take = ({ switches }: SearchOpening) => {
    const what = switches.length === 1 ? 'switch in' : `${switches.length} switches in`;
    commit(what, (d) => {
      // Two at one place: the second parts what the first has left.
      const now = new Map<string, Place>();
      for (const s of switches) {
        const place = now.get(s.location) ?? places.find((p) => p.location === s.location);
        const then = place && !s.in ? switchIn(d, place, s) : null;
        if (then) now.set(s.location, then);
      }
    });
    tell(what);
  };
  return (
    <>
      <Part title="Switches that halve the search">
        <QuantityField
          label="A part that is walked in"
          q="minutes"
          min={1}
          max={600}
          value={part}
          width="w-16"
          onCommit={setPart}
        />{' '}
        <span className="label">is parted no further</span>
        <Asked of={answer} doing="Trying switches" className="mt-2" />
        {value?.length === 0 && <p className="mt-2">Nothing is fed.</p>}
        {value?.map(({ energiser, found }) => (
          <div key={energiser} className="mt-3">
            <p role="status" data-switches={energiser}>
              {units[energiser]?.name}: <Num value={found.whole_min} q="minutes" from={SAVES} /> to
              walk it all
              {found.openings.length > 0 ? (
                <>
                  ; with <Num value={fresh(found.openings)} q="count" /> switches no part is longer
                  than <Num value={found.part_min} q="minutes" />.
                </>
              ) : found.whole_min <= part ? (
                ': no switch is wanted.'
              ) : (
                ': nowhere does a run end so that a switch could part it.'
              )}
            </p>
            {found.openings.length > 0 && (
              <DataTable
                label={`Openings of ${units[energiser]?.name}`}
                rows={found.openings}
                keyOf={(_, k) => String(k)}
                columns={[
                  { name: 'no.', n: true, cell: (_, k) => k + 1 },
                  { name: 'when', className: 'label', cell: (o) => whenWords(o) },
                  {
                    name: 'opened together',
                    head: true,
                    className: '!text-ink !font-normal !text-[1rem]',
                    cell: (o) => (
                      <ul>
                        {o.switches.map((s) => (
                          <li key={`${s.line} ${s.side} ${s.at_m}`}>
                            <button
                              className="cursor-pointer text-left underline"
                              onClick={() => look({ line: s.line, cursor: s.at_m, vertex: null })}
                            >
                              {lines[s.line]?.name}, <Where line={s.line} at_m={s.at_m} />
                            </button>
                            <span className="label">
                              {' '}
                              {s.side === 'before' ? 'what comes from before' : 'what goes on'}
                              {s.in ? ', is in' : ''}
                            </span>
                          </li>
                        ))}
                      </ul>
                    ),
                  },
                  { name: 'goes off', n: true, cell: (o) => <Num value={o.off_min} q="minutes" /> },
                  { name: 'stays on', n: true, cell: (o) => <Num value={o.on_min} q="minutes" /> },
                  {
                    name: 'saves',
                    n: true,
                    from: SAVES,
                    cell: (o) => <Num value={o.saves_min} q="minutes" />,
                  },
                  {
                    name: 'take',
                    quiet: true,
                    n: true,
                    cell: (o, k) =>
                      o.switches.every((s) => s.in) ? (
                        <span className="label">is in</span>
                      ) : (
                        <Button
                          className="small"
                          aria-label={`Put the switches of opening ${k + 1} in`}
                          onClick={() => take(o)}
                        >
                          {o.switches.length === 1 ? 'switch in' : 'switches in'}
                        </Button>
                      ),
                  },
                ]}
              />
            )}
          </div>
        ))}
        <p className="label mt-1">
          In a ring one switch parts nothing: those of one opening are opened together. Put in from
          the first on: each is for what an earlier one has left. A switch stands on the post where
          a run ends, between its live strands and all others there.
        </p>
      </Part>
      <Floods />
    </>
  );
}

/** After which answer of which opening it is the next. */
const whenWords = ({ after }: SearchOpening): string =>
  after === null
    ? 'first'
    : after.side === 'on'
      ? `fault still there with ${after.opening + 1} open`
      : `fault gone with ${after.opening + 1} open: close it again`;

/** Switches that are not in yet, each once. */
const fresh = (openings: readonly SearchOpening[]): number =>
  new Set(
    openings.flatMap((o) =>
      o.switches.flatMap((s) => (s.in ? [] : `${s.location} ${s.line} ${s.run} ${s.side}`)),
    ),
  ).size;

/** Where lines cross running water: a flood gate with a switch of its own. */
function Floods() {
  const plan = useSession((s) => s.plan);
  const rows = floodsOf(plan);
  if (rows.length === 0) return null;
  return (
    <Part title="Over running water">
      <DataTable
        label="Crossings of water"
        rows={rows}
        keyOf={(r) => `${r.line} ${r.at_m}`}
        columns={[
          {
            name: 'place',
            head: true,
            className: '!text-ink !font-normal !text-[1rem]',
            cell: (r) => (
              <>
                {plan.lines[r.line]!.name}, <Where line={r.line} at_m={r.at_m} />
              </>
            ),
          },
          { name: 'water', cell: (r) => r.water },
          { name: 'wide', n: true, cell: (r) => <Num value={r.width_m} q="tape" /> },
          {
            name: 'flood gate on a switch of its own',
            n: true,
            cell: (r) =>
              r.in ? (
                <span className="label">is in</span>
              ) : (
                <Button
                  className="small"
                  aria-label={`Flood gate on ${plan.lines[r.line]!.name} over ${r.water}`}
                  onClick={() =>
                    commit(`flood gate on ${plan.lines[r.line]!.name}`, (d) => {
                      const own = d.lines[r.line]!;
                      const flood = { at_m: r.at_m, kind: 'flood' as const, width_m: r.width_m };
                      own.crossings = inOrder([...(own.crossings ?? []), flood]);
                    })
                  }
                >
                  put in
                </Button>
              ),
          },
        ]}
      />
      <p className="label mt-1">
        Hung below the strands and fed through its own switch: in a flood it is switched off and
        swings, and the fence above it stays on.
      </p>
    </Part>
  );
}

function floodsOf(plan: Plan) {
  return Object.values(plan.lines).flatMap((line) =>
    thingsOf(plan, 'burn').flatMap((burn) =>
      stretchesNear(line, burn, 0.01).map(([from, to]) => {
        const at_m = (from + to) / 2;
        const width_m = Math.min(60, Math.max(to - from, USUAL_WIDTH));
        const on = (c: { kind: string; at_m: number }) => c.kind === 'flood' && Math.abs(c.at_m - at_m) <= width_m; // prettier-ignore
        return {
          line: line.id,
          water: burn.name,
          at_m,
          width_m,
          in: (line.crossings ?? []).some(on),
        };
      }),
    ),
  );
}
