/** An order on paper: for the supplier, and to tick off what comes. */
import { ArrowLeft, Printer } from 'lucide-react';
import { useMemo } from 'react';
import { dayText, moneyText } from '../../core/base/locale.js';
import { say } from '../../core/base/units.js';
import { catalogue } from '../../core/plan/shipped.js';
import { ownCatalogue } from '../../core/plan/ownCatalogue.js';
import type { Plan } from '../../core/plan/schema.js';
import { Button } from '../../ui/parts/Button.js';
import { usePlanOf, useRecordsOf } from '../print/recordsOf.js';
import type { Ordered } from './supplied.js';

export function OrderSheet({ id }: { id: string }) {
  const plan = usePlanOf(id);
  if (plan === null) return <p className="p-6">Reading the order …</p>;
  if (typeof plan === 'string')
    return (
      <p role="alert" className="p-6">
        {plan}
      </p>
    );
  return <Sheet id={id} plan={plan} />;
}

function Sheet({ id, plan }: { id: string; plan: Plan }) {
  const orders = useRecordsOf<Ordered>(id, 'orders');
  const name = new URLSearchParams(location.search).get('order') ?? '';
  const cat = useMemo(() => ownCatalogue(catalogue, plan), [plan]);
  if (!orders) return <p className="p-6">Reading the order …</p>;
  const lines = orders.filter((o) => o.order === name);
  const groups = [...new Set(lines.map((o) => o.delivery))];
  const suppliers = [...new Set(lines.map((o) => o.supplier).filter(Boolean))];
  const money = (x: number) => moneyText(x, plan.currency);
  const cost = lines.reduce((sum, o) => sum + o.quantity * o.price, 0);
  const tax = lines.reduce((sum, o) => sum + o.quantity * o.price * o.tax, 0);
  const amount = (o: Ordered) => o.unit === 'm' ? say(o.quantity, 'length', plan.units) : `${Math.round(o.quantity * 100) / 100} ${o.unit === 'each' ? '' : o.unit}`; // prettier-ignore
  const cell = 'px-1 py-[3px] align-baseline';
  return (
    <main>
      <style>{`@page { size: A4; margin: 14mm } @media print { html, body { background: white } .sheet { border: 0 !important; margin: 0 !important; padding: 0 !important } tr { break-inside: avoid } }`}</style>
      <div className="no-print border-rule bg-panel sticky top-0 z-10 flex flex-wrap items-center gap-3 border-b p-3">
        <a className="button" href={`/p/${id}/supplies`}>
          <ArrowLeft size={14} aria-hidden /> Supplies
        </a>
        <h1 className="heading">{name || 'Order'}</h1>
        <Button strong onClick={() => print()}>
          <Printer size={14} aria-hidden /> Print
        </Button>
      </div>
      {lines.length === 0 ? (
        <p role="alert" className="p-6">
          There is no order of that name.
        </p>
      ) : (
        <section
          className="sheet border-rule mx-auto my-4 max-w-[182mm] border bg-white p-[10mm] text-black"
          aria-label={`Order sheet ${name}`}
        >
          <header className="flex flex-wrap items-baseline justify-between border-b-2 border-black pb-1">
            <h2 className="text-[1.4rem] font-semibold">{name}</h2>
            <span>{dayText(new Date(lines[0]!.time), plan.currency)}</span>
          </header>
          <dl className="mt-2 grid grid-cols-[auto_1fr] gap-x-4">
            <dt>To</dt>
            <dd>
              {suppliers.length > 0 ? suppliers.join(', ') : '______________________________'}
            </dd>
            <dt>For</dt>
            <dd>
              <bdi>{plan.name}</bdi>
              {plan.invented ? ' (invented, with invented prices)' : ''}
            </dd>
          </dl>
          {groups.map((delivery) => (
            <section key={delivery} className="mt-4">
              <h3 className="font-semibold">Delivery: {delivery}</h3>
              <table className="w-full border-collapse text-[0.9rem]">
                <thead>
                  <tr className="border-b border-black text-left">
                    <th className={cell}>item</th>
                    <th className={`${cell} text-right`}>quantity</th>
                    <th className={`${cell} text-right`}>price</th>
                    <th className={`${cell} text-right`}>cost</th>
                    <th className={`${cell} w-[22mm] text-center`}>came</th>
                    <th className={`${cell} w-[26mm]`}>short, wrong</th>
                  </tr>
                </thead>
                <tbody>
                  {lines
                    .filter((o) => o.delivery === delivery)
                    .map((o) => (
                      <tr key={o.id} className="border-b border-neutral-300">
                        <td className={cell}>{cat.prices[o.item]?.name ?? o.item}</td>
                        <td
                          className={`${cell} text-right font-semibold whitespace-nowrap tabular-nums`}
                        >
                          {amount(o)}
                        </td>
                        <td className={`${cell} text-right tabular-nums`}>{money(o.price)}</td>
                        <td className={`${cell} text-right tabular-nums`}>
                          {money(o.quantity * o.price)}
                        </td>
                        <td className={`${cell} text-center`}>
                          <span className="inline-block size-[4mm] border border-black" />
                        </td>
                        <td className={cell} />
                      </tr>
                    ))}
                </tbody>
              </table>
            </section>
          ))}
          <table className="mt-4 ml-auto text-right tabular-nums">
            <tbody>
              <tr>
                <td className={cell}>without tax</td>
                <td className={cell}>{money(cost)}</td>
              </tr>
              <tr>
                <td className={cell}>tax</td>
                <td className={cell}>{money(tax)}</td>
              </tr>
              <tr className="border-t border-black font-semibold">
                <td className={cell}>with tax</td>
                <td className={cell}>{money(cost + tax)}</td>
              </tr>
            </tbody>
          </table>
          <footer className="mt-6 text-[0.8rem]">
            Heavy posts and coils: two people or a loader. Came in by __________________ on
            ____________
          </footer>
        </section>
      )}
    </main>
  );
}
