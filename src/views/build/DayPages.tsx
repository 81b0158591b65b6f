/** Sheets of days on paper: one day, or the next few. */
import { ArrowLeft, Printer } from 'lucide-react';
import { useMemo } from 'react';
import { asked, daysOf, loadOf } from '../../core/build/loadout.js';
import { nameOf } from '../../core/build/kinds.js';
import { useCatalogue } from '../../session/catalogue.js';
import { useStanding } from '../../session/kept.js';
import { useSession } from '../../session/state.js';
import { Button } from '../../ui/parts/Button.js';
import { numbered, type Leaf } from '../print/leaf.js';
import { OnLoaded, type Loaded } from '../print/OnLoaded.js';
import { useStandingAlone } from '../print/standing.js';
import { useCuts, useLedger } from '../supplies/supplied.js';
import { dayName, useWork, useWorking, type LoadRecord } from './built.js';
import { DaySheet, sheetTitle } from './DaySheet.js';

const MOST = 10;

export function DayPages({ id }: { id: string }) {
  return (
    <OnLoaded id={id} words="Planning the days …">
      {(loaded) => <Standing id={id} loaded={loaded} />}
    </OnLoaded>
  );
}

function Standing({ id, loaded }: { id: string; loaded: Loaded }) {
  return useStandingAlone(id, loaded) ? <Pages id={id} loaded={loaded} /> : null;
}

function Pages({ id, loaded }: { id: string; loaded: Loaded }) {
  const search = new URLSearchParams(location.search);
  const count = Math.min(MOST, Math.max(1, Number(search.get('days') ?? 1) || 1));
  const leaves = useDayLeaves(search.get('day'), count);
  return (
    <main>
      <style>{`@page { size: A4; margin: 12mm } @media print { html, body { background: white } }`}</style>
      <div className="no-print border-rule bg-panel sticky top-0 z-10 flex flex-wrap items-center gap-3 border-b p-3">
        <a className="button" href={`/p/${id}/build`}>
          <ArrowLeft size={14} aria-hidden /> Build
        </a>
        <h1 className="heading">Days of work on {loaded.plan.name}</h1>
        <Button strong onClick={() => print()}>
          <Printer size={14} aria-hidden /> Print
        </Button>
        {count < 3 && (
          <a className="button" href={`/day/${id}?day=${search.get('day') ?? ''}&days=3`}>
            three days
          </a>
        )}
      </div>
      {leaves === null ? (
        <p className="p-6">Planning the days …</p>
      ) : typeof leaves === 'string' ? (
        <p role="alert" className="p-6">
          {leaves}
        </p>
      ) : (
        numbered(leaves)
      )}
    </main>
  );
}

/** Some days from one on as leaves; null until they are planned, words where there is nothing to print. */
export function useDayLeaves(from: string | null, count: number): readonly Leaf[] | string | null {
  const { value: planned, waiting } = useWork();
  const cat = useCatalogue();
  const w = useWorking();
  const ledger = useLedger();
  const { value: cuts, waiting: cutting } = useCuts(ledger);
  const { records } = useStanding<LoadRecord>('loads');
  return useMemo(() => {
    if (!planned || waiting || cutting || !cuts) return null;
    if (planned.fault !== null) return planned.fault;
    const days = daysOf(planned.tasks).filter((d) => !from || d >= from).slice(0, count);
    if (days.length === 0) return 'Nothing is left to be done.';
    return days.map((d) => ({ key: d, of: dayName(d), draw: (mark: string) => <Sheet day={d} mark={mark} planned={planned} cat={cat} w={w} cuts={cuts} records={records} /> }));
  }, [planned, waiting, cutting, cuts, from, count, cat, w, records]);
} // prettier-ignore

interface SheetProps {
  readonly day: string;
  readonly mark: string;
  readonly planned: NonNullable<ReturnType<typeof useWork>['value']>;
  readonly cat: ReturnType<typeof useCatalogue>;
  readonly w: ReturnType<typeof useWorking>;
  readonly cuts: NonNullable<ReturnType<typeof useCuts>['value']>;
  readonly records: readonly LoadRecord[];
}

function Sheet({ day, mark, planned, cat, w, cuts, records }: SheetProps) {
  const plan = useSession((s) => s.plan);
  const load = loadOf(planned.tasks, day, cat, cuts);
  const before = asked(load, records.filter((r) => r.state === 'forgotten' && r.day < day)); // prettier-ignore
  return (
    <section
      className="border-rule mx-auto my-4 max-w-[186mm] break-after-page border bg-white p-[8mm] text-[0.9rem] text-black print:m-0 print:border-0 print:p-0"
      aria-label={`Sheet of ${day}`}
    >
      <header className="mb-2 border-b-2 border-black pb-1">
        <div className="flex items-baseline justify-between gap-4">
          <h2 className="text-[1.4rem] font-semibold">{sheetTitle(load, plan)}</h2>
          <span className="whitespace-nowrap">{mark}</span>
        </div>
        <p>
          {load.people.length} {load.people.length === 1 ? 'person' : 'people'}:{' '}
          {load.people.map((p) => w.crew.find((m) => m.id === p)?.name ?? p).join(', ')}.
          {plan.invented ? ' Everything here is made up.' : ''}
        </p>
      </header>
      <DaySheet
        load={load}
        plan={plan}
        w={w}
        tick={() => <span className="inline-block size-[3.6mm] border border-black" />}
        before={
          before.length > 0 ? (
            <p className="mb-1 font-semibold">
              Forgotten before: {before.map((b) => nameOf(b.item, cat)).join(', ')}
            </p>
          ) : null
        }
      />
    </section>
  );
}
