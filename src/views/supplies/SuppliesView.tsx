/** What to buy, what it costs, how the coils are cut; prices, orders, and designs side by side. */
import { lazy, Suspense } from 'react';
import { useSession } from '../../session/session.js';
import { Tabs } from '../../ui/parts/Tabs.js';
import { BuyTab } from './BuyTab.js';
import { TABS, useSuppliesTab, type SuppliesTab } from './supplied.js';

const LATER = {
  coils: lazy(() => import('./CoilsTab.js').then((m) => ({ default: m.CoilsTab }))),
  prices: lazy(() => import('./PricesTab.js').then((m) => ({ default: m.PricesTab }))),
  orders: lazy(() => import('./OrdersTab.js').then((m) => ({ default: m.OrdersTab }))),
  apart: lazy(() => import('./SideBySideTab.js').then((m) => ({ default: m.SideBySideTab }))),
  years: lazy(() => import('./YearsTab.js').then((m) => ({ default: m.YearsTab }))),
} satisfies Record<Exclude<SuppliesTab, 'buy'>, unknown>;

export function SuppliesView() {
  const counted = useSession((s) => s.report !== null);
  const tab = useSuppliesTab((t) => t.tab);
  const Shown = tab === 'buy' ? BuyTab : LATER[tab];
  return (
    <div className="@container h-full overflow-auto p-4 pt-0">
      <Tabs
        label="What Supplies looks at"
        tabs={TABS}
        chosen={tab}
        onChoose={(t) => useSuppliesTab.setState({ tab: t })}
      >
        {counted ? (
          <Suspense fallback={<p role="status">One moment …</p>}>
            <Shown />
          </Suspense>
        ) : (
          <p role="status">Counting …</p>
        )}
      </Tabs>
    </div>
  );
}
