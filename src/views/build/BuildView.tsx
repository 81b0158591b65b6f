/** Who does what, when, with what on the trailer; and whether what stands is as it should be. */
import './build.css';
import { Printer } from 'lucide-react';
import { lazy, Suspense } from 'react';
import { useSession } from '../../session/session.js';
import { Tabs } from '../../ui/parts/Tabs.js';
import { TABS, useBuildTab, type BuildTab } from './built.js';
import { ChartTab } from './ChartTab.js';

const LATER = {
  tasks: lazy(() => import('./TasksTab.js').then((m) => ({ default: m.TasksTab }))),
  days: lazy(() => import('./DaysTab.js').then((m) => ({ default: m.DaysTab }))),
  who: lazy(() => import('./WhoTab.js').then((m) => ({ default: m.WhoTab }))),
  rates: lazy(() => import('./RatesTab.js').then((m) => ({ default: m.RatesTab }))),
  inspect: lazy(() => import('./InspectTab.js').then((m) => ({ default: m.InspectTab }))),
  cards: lazy(() => import('./CardsTab.js').then((m) => ({ default: m.CardsTab }))),
  prove: lazy(() => import('./ProveTab.js').then((m) => ({ default: m.ProveTab }))),
} satisfies Record<Exclude<BuildTab, 'chart'>, unknown>;

export function BuildView() {
  const tab = useBuildTab((t) => t.tab);
  const id = useSession((s) => s.id);
  const empty = useSession((s) => Object.keys(s.plan.lines).length === 0);
  const Shown = tab === 'chart' ? ChartTab : LATER[tab];
  return (
    <div className="@container h-full overflow-auto p-4 pt-0">
      <Tabs
        label="What Build looks at"
        tabs={TABS}
        chosen={tab}
        onChoose={(t) => useBuildTab.setState({ tab: t })}
      >
        {empty ? (
          <p className="mt-4 max-w-[36em]">
            There is nothing to build yet: draw a line on Land, and its work stands here.
          </p>
        ) : (
          <>
            <a className="button no-print float-right mt-2 ml-3" href={`/pack/${id}`}>
              <Printer size={14} aria-hidden /> Print pack
            </a>
            <Suspense fallback={<p role="status">One moment …</p>}>
              <Shown />
            </Suspense>
          </>
        )}
      </Tabs>
    </div>
  );
}
