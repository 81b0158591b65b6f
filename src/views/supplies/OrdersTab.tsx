/** Orders: what is still to be bought, by supplier and delivery; what came; what is missing for the next work. */
import { useState } from 'react';
import {
  DELIVERIES,
  DELIVERY_NAMES,
  deliveryOf,
  type Delivery,
} from '../../core/supplies/groups.js';
import type { BasketRow } from '../../core/supplies/basket.js';
import { useCatalogue } from '../../session/catalogue.js';
import { happened } from '../../session/records.js';
import { Button } from '../../ui/parts/Button.js';
import { Part, Select } from '../../ui/parts/controls.js';
import { DataTable } from '../../ui/parts/DataTable.js';
import { FieldFault } from '../../ui/parts/FieldFault.js';
import { useMoney } from '../../ui/parts/money.js';
import { Amount } from './Amount.js';
import { NextWork } from './NextWork.js';
import { Placed } from './Placed.js';
import { useBasket, useCuts, useLedger, useSupplies, type Ordered } from './supplied.js';

export function OrdersTab() {
  const ledger = useLedger();
  const { value: cuts, waiting } = useCuts(ledger);
  const supplies = useSupplies(cuts);
  const basket = useBasket(supplies, ledger);
  return (
    <>
      <ToOrder basket={basket} orders={ledger.orders} counted={!waiting && ledger.known} />
      <Placed ledger={ledger} />
      <NextWork supplies={supplies} ledger={ledger} />
    </>
  );
}

const ANY = 'any';
/** What an item without a supplier goes under. */
const NOBODY = 'no supplier yet';

interface ToOrderProps {
  readonly basket: readonly BasketRow[];
  readonly orders: readonly Ordered[];
  /** Shed, orders and coils are known: before that nothing is ordered. */
  readonly counted: boolean;
}

/** What is to be bought, sifted by who sells it and when it is wanted, and made an order. */
function ToOrder({ basket, orders, counted }: ToOrderProps) {
  const cat = useCatalogue();
  const money = useMoney();
  const [supplier, setSupplier] = useState(ANY);
  const [delivery, setDelivery] = useState<Delivery | typeof ANY>(ANY);
  const supplierOf = (b: BasketRow) => cat.prices[b.supply.id]?.supplier ?? NOBODY;
  const stage = (b: BasketRow) => DELIVERIES.indexOf(deliveryOf(b.supply.id));
  const open = basket.filter((b) => b.buy > 0).sort((a, b) => stage(a) - stage(b));
  const suppliers = [...new Set(open.map(supplierOf))].sort();
  const sold = suppliers.includes(supplier) ? supplier : ANY;
  const rows = open.filter(
    (b) =>
      (sold === ANY || supplierOf(b) === sold) &&
      (delivery === ANY || deliveryOf(b.supply.id) === delivery),
  );
  const cost = rows.reduce((sum, b) => sum + b.cost, 0);
  const tax = rows.reduce((sum, b) => sum + b.cost * b.supply.tax, 0);
  const order = (name: string) => {
    for (const b of rows)
      happened('orders', {
        order: name,
        supplier: supplierOf(b) === NOBODY ? '' : supplierOf(b),
        delivery: DELIVERY_NAMES[deliveryOf(b.supply.id)],
        item: b.supply.id,
        quantity: b.buy,
        unit: b.supply.unit,
        price: b.supply.price,
        tax: b.supply.tax,
      });
  };
  return (
    <Part title="Still to be ordered">
      <div className="mb-3 flex flex-wrap items-end gap-x-6 gap-y-2">
        <Select
          label="From"
          value={sold}
          width="max-w-[14rem]"
          options={[[ANY, 'any supplier'], ...suppliers.map((s) => [s, s] as const)]}
          onChange={setSupplier}
        />
        <Select<Delivery | typeof ANY>
          label="Delivery"
          value={delivery}
          width="max-w-[16rem]"
          options={[
            [ANY, 'all at once'],
            ...DELIVERIES.map((d) => [d, DELIVERY_NAMES[d]] as const),
          ]}
          onChange={setDelivery}
        />
        {rows.length > 0 && counted && (
          <MakeOrder key={orders.length} rows={rows.length} orders={orders} onOrder={order} />
        )}
      </div>
      {!counted ? (
        <p role="status">Cutting the coils, asking what was ordered …</p>
      ) : rows.length === 0 ? (
        <p>
          {basket.length === 0
            ? 'The plan wants nothing yet: draw a line first.'
            : open.length === 0
              ? 'Everything that the plan wants is ordered, in the shed or built in.'
              : 'Nothing of this is still to be ordered.'}
        </p>
      ) : (
        <>
          <DataTable<BasketRow>
            label="Still to be ordered"
            rows={rows}
            keyOf={(b) => b.supply.id}
            groupOf={(b) => DELIVERY_NAMES[deliveryOf(b.supply.id)]}
            finds={(b) => `${b.supply.name} ${supplierOf(b)}`}
            columns={[
              {
                name: 'item',
                head: 'plain',
                by: (b) => b.supply.name,
                cell: (b) => b.supply.name,
              },
              { name: 'to buy', n: true, className: 'font-semibold', by: (b) => b.buy, cell: (b) => <Amount of={b.supply.unit} n={b.buy} /> }, // prettier-ignore
              { name: 'wanted', n: true, cell: (b) => <Amount of={b.supply.unit} n={b.supply.quantity} /> }, // prettier-ignore
              { name: 'in the shed', n: true, cell: (b) => b.shed > 0 && <Amount of={b.supply.unit} n={b.shed} /> }, // prettier-ignore
              { name: 'on order', n: true, cell: (b) => b.onOrder > 0 && <Amount of={b.supply.unit} n={b.onOrder} /> }, // prettier-ignore
              { name: 'cost', n: true, className: 'figure', by: (b) => b.cost, cell: (b) => money(b.cost) }, // prettier-ignore
              { name: 'supplier', by: supplierOf, cell: supplierOf },
            ]}
          />
          <p className="mt-2" data-order-total>
            <strong>{money(cost)}</strong> without tax, {money(cost + tax)} with tax.
          </p>
        </>
      )}
    </Part>
  );
}

function MakeOrder(p: {
  rows: number;
  orders: readonly Ordered[];
  onOrder: (name: string) => void;
}) {
  const names = new Set(p.orders.map((o) => o.order));
  let next = names.size + 1;
  while (names.has(`Order ${next}`)) next++;
  const [name, setName] = useState(`Order ${next}`);
  const [fault, setFault] = useState<string | null>(null);
  return (
    <form
      className="flex flex-wrap items-end gap-2"
      onSubmit={(e) => {
        e.preventDefault();
        const clean = name.trim();
        if (clean === '') return setFault('A name or number is wanted.');
        if (names.has(clean)) return setFault('There is an order of that name.');
        p.onOrder(clean);
      }}
    >
      <label className="flex flex-col">
        <span className="label">Name or number of the order</span>
        <input
          className="field w-36"
          value={name}
          maxLength={40}
          onChange={(e) => setName(e.target.value)}
        />
      </label>
      <Button strong type="submit">
        {p.rows === 1 ? 'Order this item' : `Order these ${p.rows} items`}
      </Button>
      {fault && <FieldFault>{fault}</FieldFault>}
    </form>
  );
}
