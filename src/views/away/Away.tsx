/** Stands in for every page while the server cannot be reached: the address says which. */
import { lazy, Suspense, type ComponentType } from 'react';
import { KeptList } from './KeptList.js';

type Page = ComponentType<{ id: string; step: string }>;
const page = <K extends string>(
  load: () => Promise<Readonly<Record<K, ComponentType<never>>>>,
  name: K,
) => lazy(async () => ({ default: (await load())[name] as unknown as Page }));

/** By the first part of the address; each of one property. */
const PAGES: Readonly<Record<string, Page>> = {
  p: page(() => import('../shell/Workbench.js'), 'Workbench'),
  cards: page(() => import('../build/HandCards.js'), 'HandCards'),
  coils: page(() => import('../supplies/CoilCards.js'), 'CoilCards'),
  day: page(() => import('../build/DayPages.js'), 'DayPages'),
  ends: page(() => import('../ends/EndCards.js'), 'EndCards'),
  order: page(() => import('../supplies/OrderSheet.js'), 'OrderSheet'),
  pack: page(() => import('../pack/PackView.js'), 'PackView'),
  print: page(() => import('../print/PrintView.js'), 'PrintView'),
  setout: page(() => import('../setout/SetOutView.js'), 'SetOutView'),
  stick: page(() => import('../stick/StickView.js'), 'StickView'),
  strain: page(() => import('../strain/StrainCards.js'), 'StrainCards'),
  wiring: page(() => import('../joins/WiringSheets.js'), 'WiringSheets'),
};

export function Away() {
  const [, first, id, step] = location.pathname.split('/');
  const Found = PAGES[first ?? ''];
  if (!Found || !id) return <KeptList here={location.pathname === '/'} />;
  return (
    <Suspense fallback={<p className="p-6">Opening …</p>}>
      <Found id={id} step={step || 'land'} />
    </Suspense>
  );
} // prettier-ignore
