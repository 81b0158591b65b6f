/** Whether each end stands: its drawing with forces, the other ways, how it is set, its gate. */
import { Printer } from 'lucide-react';
import { create } from 'zustand';
import { say } from '../../core/base/units.js';
import type { Line } from '../../core/plan/schema.js';
import type { EndReport } from '../../core/report/schema.js';
import { useCatalogue } from '../../session/catalogue.js';
import { useSession } from '../../session/session.js';
import { look, useView } from '../../session/view.js';
import { Caution, Part } from '../../ui/parts/controls.js';
import { useUnits } from '../../ui/parts/Num.js';
import { useRoving } from '../../ui/parts/roving.js';
import { Tabs } from '../../ui/parts/Tabs.js';
import { EndTab } from './EndTab.js';
import { GatesTab } from './GatesTab.js';
import { ROLES, worst } from './place.js';
import { ReplaceTab } from './ReplaceTab.js';
import { SettingTab } from './SettingTab.js';

type Tab = 'end' | 'setting' | 'gates' | 'replace';
const TABS: readonly (readonly [Tab, string])[] = [
  ['end', 'Assembly'],
  ['setting', 'Setting'],
  ['gates', 'Gates'],
  ['replace', 'Replace'],
];

/** What Ends looks at beside the plan; which side of a corner. */
const useTab = create<{ readonly tab: Tab; readonly side: EndReport['side'] | null }>(() => ({
  tab: 'end',
  side: null,
}));

export function EndsView() {
  const id = useView((v) => v.line);
  const line = useSession((s) => (id ? s.plan.lines[id] : undefined));
  const report = useSession((s) => (id ? s.report?.lines[id] : undefined));
  const tab = useTab((t) => t.tab);
  const cursor = useView((v) => v.cursor);
  const side = useTab((t) => t.side);
  if (!line || !report) return <div className="p-4" />;
  const all = report.ends;
  const away = (e: EndReport) => Math.abs(e.at_m - (cursor ?? 0)) + (side && e.side !== side ? 0.01 : 0); // prettier-ignore
  const chosen = all.reduce<EndReport | null>((best, e) => (best && away(best) <= away(e) ? best : e), null); // prettier-ignore
  return (
    <div className="@container relative p-4 pt-0">
      <Tabs
        label="What Ends looks at"
        tabs={TABS}
        chosen={tab}
        onChoose={(t) => useTab.setState({ tab: t })}
      >
        {chosen === null ? (
          <p className="label">No strands on {line.name} yet: nothing pulls at its ends.</p>
        ) : (
          <Part
            title={`${TABS.find(([t]) => t === tab)![1]} on ${line.name}`}
            aside={<Cards line={line} />}
          >
            <div className="flex flex-col gap-4 @[44rem]:flex-row">
              <EndList all={all} chosen={chosen} />
              <div className="min-w-0 flex-1">
                {tab === 'end' && (
                  <EndTab key={`${chosen.at_m} ${chosen.side}`} line={line} end={chosen} />
                )}
                {tab === 'setting' && <SettingTab line={line} end={chosen} />}
                {tab === 'gates' && <GatesTab line={line} end={chosen} />}
                {tab === 'replace' && <ReplaceTab line={line} end={chosen} />}
              </div>
            </div>
            <Caution>
              Figures of soil are memory and judgement: look at what stands in your district. Eyes
              and gloves; stand away from the line of a tight wire; drivers, augers and saws for
              trained people only; find buried services before you dig. Above a great pull ask an
              engineer.
            </Caution>
          </Part>
        )}
      </Tabs>
    </div>
  );
}

function Cards({ line }: { line: Line }) {
  const id = useSession((s) => s.id);
  return (
    <a className="button no-print" href={`/ends/${id}?line=${encodeURIComponent(line.id)}`}>
      <Printer size={14} aria-hidden /> Bench cards
    </a>
  );
}

/** The ends of a line from its start to its end. */
function EndList({ all, chosen }: { all: readonly EndReport[]; chosen: EndReport }) {
  const units = useUnits();
  const cat = useCatalogue();
  const roving = useRoving<HTMLDivElement>('button');
  return (
    <div
      {...roving}
      role="group"
      aria-label="Ends"
      className="max-h-[11rem] shrink-0 overflow-y-auto @[44rem]:max-h-[30rem] @[44rem]:w-[14rem]"
    >
      {all.map((e) => {
        const w = worst(e);
        return (
          <button
            key={`${e.at_m} ${e.side}`}
            aria-current={e === chosen ? 'true' : undefined}
            className={`line-row block w-full cursor-pointer px-2 py-1 text-left ${e === chosen ? 'bg-chosen font-semibold' : 'hover:bg-hover'}`}
            onClick={() => {
              useTab.setState({ side: e.side });
              look({ cursor: e.at_m });
            }}
          >
            {say(e.at_m, 'length', units)}, {ROLES[e.role] ?? e.role}
            {e.role === 'corner' || e.role === 'gate' ? (e.side === 'before' ? ' ◂' : ' ▸') : ''}
            <span className="label block">
              {cat.ends[e.kind]!.name}
              {e.hand ? ', set by hand' : ''}
              {w.share > 1 && <strong className="text-stop"> does not hold</strong>}
            </span>
          </button>
        );
      })}
    </div>
  );
}
