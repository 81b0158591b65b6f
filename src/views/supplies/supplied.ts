/** What the tabs of Supplies look at: the list as the coils are cut, and what has happened to it. */
import { useEffect, useMemo } from 'react';
import { create } from 'zustand';
import type { Plan } from '../../core/plan/schema.js';
import type { Supply } from '../../core/report/schema.js';
import { basketOf, begun, type BasketRow, type Delivered, type Ledger, type OrderLine, type StockMove } from '../../core/supplies/basket.js'; // prettier-ignore
import { withCuts } from '../../core/supplies/cutSupplies.js';
import type { WireCut } from '../../core/supplies/wireCuts.js';
import { useCatalogue } from '../../session/catalogue.js';
import { useStanding, type KeptRecord } from '../../session/kept.js';
import { usePower, type Answer } from '../../session/power.js';
import { happened } from '../../session/records.js';
import { useSession } from '../../session/session.js';

export const TABS = [
  ['buy', 'What to buy'],
  ['coils', 'Coils'],
  ['prices', 'Prices'],
  ['orders', 'Orders'],
  ['apart', 'Side by side'],
  ['years', 'Over the years'],
] as const;
export type SuppliesTab = (typeof TABS)[number][0];

export const useSuppliesTab = create<{ readonly tab: SuppliesTab }>(() => ({ tab: 'buy' }));

export type Move = KeptRecord & StockMove & { readonly waiting?: boolean };
export type Ordered = KeptRecord & OrderLine & { readonly waiting?: boolean };
export type Came = KeptRecord & Delivered & { readonly waiting?: boolean };

/** What the records say of shed, orders and deliveries. */
export function useLedger() {
  const stock = useStanding<Move>('stock');
  const orders = useStanding<Ordered>('orders');
  const deliveries = useStanding<Came>('deliveries');
  return {
    stock: stock.records,
    orders: orders.records,
    deliveries: deliveries.records,
    known: stock.known && orders.known && deliveries.known,
  };
}

/** What was cut last, and from what: the tabs share it. */
let lastCut: { readonly id: string; readonly plan: Plan; readonly key: string; readonly cuts: WireCut[] } | null = null; // prettier-ignore

/** The coils as they are cut, with the part coils of the shed; null until they are. */
export function useCuts(ledger: Ledger): Answer<WireCut[]> {
  const plan = useSession((s) => s.plan);
  const id = useSession((s) => s.id);
  const parts = begun(ledger);
  const key = JSON.stringify(['cut', parts]);
  const known = lastCut?.plan === plan && lastCut.key === key ? lastCut.cuts : null;
  const { value, waiting, share, fault } = usePower(known ? null : key, (api) => api.cut(parts));
  useEffect(() => {
    if (value && !waiting) lastCut = { id, plan, key, cuts: value };
  }, [value, waiting, id, plan, key]);
  // While it is cut anew, what was cut of this property before.
  const before = lastCut?.id === id ? lastCut.cuts : null;
  if (known) return { value: known, waiting: false, share: null, fault: null };
  return { value: value ?? before, waiting, share, fault };
}

/** The list of supplies as the coils are cut; as it was first counted until they are. */
export function useSupplies(cuts: readonly WireCut[] | null): readonly Supply[] {
  const report = useSession((s) => s.report);
  const cat = useCatalogue();
  return useMemo(() => {
    const counted = report?.supplies ?? [];
    return cuts ? withCuts(counted, cuts, cat) : counted;
  }, [report?.supplies, cuts, cat]);
}

export function useBasket(supplies: readonly Supply[], ledger: Ledger): readonly BasketRow[] {
  const cat = useCatalogue();
  return basketOf(supplies, ledger, cat);
}

/** Puts the number in the shed right: what is more or less than the records say is a move. */
export const countShed = (item: string, was: number, is: number): void => {
  if (is !== was) happened('stock', { item, quantity: is - was, length_m: null, why: 'counted' });
};
