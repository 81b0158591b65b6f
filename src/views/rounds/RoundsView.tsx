/** What was read on the fence, what it should read, what that says, and what is due. */
import './rounds.css';
import { lazy, Suspense } from 'react';
import { useSession } from '../../session/session.js';
import { Tabs } from '../../ui/parts/Tabs.js';
import { RoundTab } from './RoundTab.js';
import { TABS, useRoundsTab, type RoundsTab } from './rounds.js';

const LATER = {
  trends: lazy(() => import('./TrendsTab.js').then((m) => ({ default: m.TrendsTab }))),
  fit: lazy(() => import('./FitTab.js').then((m) => ({ default: m.FitTab }))),
  care: lazy(() => import('./CareTab.js').then((m) => ({ default: m.CareTab }))),
  repairs: lazy(() => import('./RepairsTab.js').then((m) => ({ default: m.RepairsTab }))),
  monitors: lazy(() => import('./MonitorsTab.js').then((m) => ({ default: m.MonitorsTab }))),
  log: lazy(() => import('./LogTab.js').then((m) => ({ default: m.LogTab }))),
} satisfies Record<Exclude<RoundsTab, 'round'>, unknown>;

export function RoundsView() {
  const tab = useRoundsTab((t) => t.tab);
  const none = useSession((s) => Object.keys(s.plan.lines).length === 0);
  const Shown = tab === 'round' ? RoundTab : LATER[tab];
  return (
    <div className="@container h-full overflow-auto p-4 pt-0">
      <Tabs
        label="What Rounds looks at"
        tabs={TABS}
        chosen={tab}
        onChoose={(t) => useRoundsTab.setState({ tab: t })}
      >
        {none ? (
          <p className="mt-4 max-w-[36em]">
            There is no fence to walk yet: draw a line on Land, and its round stands here.
          </p>
        ) : (
          <Suspense fallback={<p role="status">One moment …</p>}>
            <Shown />
          </Suspense>
        )}
      </Tabs>
    </div>
  );
}
