import { create } from 'zustand';
import type { Line } from '../../core/plan/schema.js';
import { deadTail } from '../../core/wiring/tail.js';
import { commit, useSession } from '../../session/session.js';
import { useCatalogue } from '../../session/catalogue.js';
import { look, useView } from '../../session/view.js';
import { Caution, Part, QuantityField } from '../../ui/parts/controls.js';
import { Button } from '../../ui/parts/Button.js';
import { Num } from '../../ui/parts/Num.js';
import { Tabs } from '../../ui/parts/Tabs.js';
import { Connectors } from './Connectors.js';
import { CrossingsTab } from './CrossingsTab.js';
import { FedTab } from './FedTab.js';
import { HangTab } from './HangTab.js';
import { placesOn, useFences, type Wired } from './fence.js';
import { PlaceList } from './PlaceList.js';
import { PlaceWiring } from './PlaceWiring.js';
import { FED_M } from './origins.js';
import { SwitchesTab } from './SwitchesTab.js';

type Tab = 'wiring' | 'fed' | 'switches' | 'hang' | 'cross' | 'kinds';
const TABS: readonly (readonly [Tab, string])[] = [
  ['wiring', 'Wiring'],
  ['fed', 'Fed'],
  ['switches', 'Switches'],
  ['hang', 'Insulators'],
  ['cross', 'Crossings'],
  ['kinds', 'Connectors'],
];

/** What Joins looks at beside the plan. */
const useTab = create<{ readonly tab: Tab }>(() => ({ tab: 'wiring' }));

/** Whether every strand is fed, and the wiring of each place as it is built. */
export function JoinsView() {
  const id = useView((v) => v.line);
  const line = useSession((s) => (id ? s.plan.lines[id] : undefined));
  const fences = useFences();
  const tab = useTab((t) => t.tab);
  const own = line && fences.find((f) => f.net.ids.includes(line.id));
  if (!line) return <div className="p-4" />;
  return (
    <div className="@container relative p-4 pt-0">
      <Tabs
        label="What Joins looks at"
        tabs={TABS}
        chosen={tab}
        onChoose={(t) => useTab.setState({ tab: t })}
      >
        {tab === 'wiring' && own && <OfLine line={line} wired={own} />}
        {tab === 'fed' && <FedTab line={line} fences={fences} />}
        {tab === 'switches' && <SwitchesTab fences={fences} />}
        {tab === 'hang' && <HangTab line={line} />}
        {tab === 'cross' && <CrossingsTab line={line} />}
        {tab === 'kinds' && <Connectors fences={fences} />}
      </Tabs>
    </div>
  );
}

function OfLine({ line, wired }: { line: Line; wired: Wired }) {
  const cursor = useView((v) => v.cursor);
  const all = placesOn(wired, line.id);
  // Where the section points, the nearest place is looked at.
  const chosen =
    all.length === 0
      ? null
      : all.reduce((best, p) =>
          Math.abs(p.at_m - (cursor ?? 0)) < Math.abs(best.at_m - (cursor ?? 0)) ? p : best,
        );
  return (
    <Part title={`What is tied on ${line.name}`} aside={<FedWords wired={wired} />}>
      {chosen === null ? (
        <p className="label">No run of wire yet: nothing to tie.</p>
      ) : (
        <div className="flex flex-col gap-4 @[40rem]:flex-row">
          <div className="shrink-0 @[40rem]:w-[14rem]">
            <PlaceList
              all={all}
              chosen={chosen}
              fed={wired.fed}
              onChoose={(p) => look({ cursor: p.at_m })}
            />
          </div>
          <div className="min-w-0 flex-1">
            <PlaceWiring key={chosen.place.location} at={chosen} line={line} wired={wired} />
          </div>
        </div>
      )}
      <Tail line={line} />
      <Caution>
        Switch the unit off and prove it off before you touch a wire. A lead-out or a cable under a
        gate is for high voltage: house cable breaks down.
      </Caution>
    </Part>
  );
}

/** How much of the strands that hang together is fed. */
function FedWords({ wired }: { wired: Wired }) {
  const fed = useSession((s) =>
    wired.net.energiser ? s.report?.fed[wired.net.energiser.id] : undefined,
  );
  if (!fed) return <span className="label">No unit feeds these lines.</span>;
  const dead = fed.live_m - fed.fed_m;
  return (
    <span className="label" role="status">
      {dead > 0.5 ? (
        <>
          <Num value={dead} q="length" from={FED_M} /> of <Num value={fed.live_m} q="length" /> live
          strand is dead
        </>
      ) : (
        <>
          all <Num value={fed.live_m} q="length" from={FED_M} /> of live strand is fed
        </>
      )}
    </span>
  );
}

/** How long the dead tail is between post and end insulator. */
function Tail({ line }: { line: Line }) {
  const cat = useCatalogue();
  const set = (m: number | null) =>
    commit(`dead tail of ${line.name}`, (d) => {
      const own = d.lines[line.id]!;
      if (m === null) delete own.deadTail_m;
      else own.deadTail_m = m;
    });
  return (
    <div className="mt-3 flex flex-wrap items-center gap-x-3 gap-y-1">
      <QuantityField
        label="Dead tail between post and end insulator"
        q="height"
        at="lines/*/deadTail_m"
        value={deadTail(line, cat)}
        width="w-20"
        onCommit={set}
      />
      {line.deadTail_m === undefined ? (
        <span className="label">as is usual for the stock here</span>
      ) : (
        <Button onClick={() => set(null)}>As usual</Button>
      )}
    </div>
  );
}
