/** What the next work wants: on a line, for a part of it; what is missing; and what was built in. */
import { useState } from 'react';
import type { Supply } from '../../core/report/schema.js';
import { wantedFor, type Wanted } from '../../core/supplies/basket.js';
import { DELIVERIES, DELIVERY_NAMES, type Delivery } from '../../core/supplies/groups.js';
import { useCatalogue } from '../../session/catalogue.js';
import { happened, takeBack } from '../../session/records.js';
import { useSession } from '../../session/session.js';
import { Button } from '../../ui/parts/Button.js';
import { Check, Part, Select } from '../../ui/parts/controls.js';
import { DataTable } from '../../ui/parts/DataTable.js';
import { Amount } from './Amount.js';
import { type useLedger } from './supplied.js';

interface NextWorkProps {
  readonly supplies: readonly Supply[];
  readonly ledger: ReturnType<typeof useLedger>;
}

const ALL = 'all';

export function NextWork({ supplies, ledger }: NextWorkProps) {
  const cat = useCatalogue();
  const lines = useSession((s) => s.plan.lines);
  const [line, setLine] = useState(ALL);
  const [part, setPart] = useState<Delivery>('ends');
  const [short, setShort] = useState(true);
  const chosen = lines[line] ? line : ALL;
  const all = wantedFor(supplies, ledger, { line: chosen === ALL ? null : chosen, delivery: part }, cat); // prettier-ignore
  const rows = short ? all.filter((w) => w.missing > 1e-6) : all;
  const missing = all.filter((w) => w.missing > 1e-6).length;
  const named = `${DELIVERY_NAMES[part].toLowerCase()}, ${chosen === ALL ? 'all lines' : lines[chosen]!.name}`;
  const built = ledger.stock.filter((m) => m.why === 'built' && m.note === named);
  return (
    <Part title="For the next day’s work">
      <div className="mb-2 flex flex-wrap items-end gap-x-6 gap-y-2">
        <Select
          label="On"
          value={chosen}
          width="max-w-[14rem]"
          options={[[ALL, 'all lines'], ...Object.values(lines).map((l) => [l.id, l.name] as const)]} // prettier-ignore
          onChange={setLine}
        />
        <Select<Delivery>
          label="Work on"
          value={part}
          width="max-w-[16rem]"
          options={DELIVERIES.map((d) => [d, DELIVERY_NAMES[d]] as const)}
          onChange={setPart}
        />
        <Check label="only what is missing" checked={short} onChange={setShort} />
      </div>
      <p className="mb-2" data-missing>
        {all.length === 0
          ? 'This work wants nothing.'
          : missing === 0
            ? '✓ Everything that it wants is in the shed.'
            : `△ ${missing} of ${all.length} items are not all in the shed yet.`}
      </p>
      {rows.length > 0 && (
        <DataTable<Wanted>
          label="Wanted for the next work"
          rows={rows}
          keyOf={(w) => w.supply.id}
          columns={[
            {
              name: 'item',
              head: 'plain',
              by: (w) => w.supply.name,
              cell: (w) => w.supply.name,
            },
            { name: 'wanted', n: true, cell: (w) => <Amount of={w.supply.unit} n={w.need} /> },
            { name: 'in the shed', n: true, cell: (w) => <Amount of={w.supply.unit} n={w.shed} /> },
            {
              name: 'missing',
              n: true,
              className: 'font-semibold',
              by: (w) => w.missing,
              cell: (w) => (w.missing > 1e-6 ? <Amount of={w.supply.unit} n={w.missing} /> : '✓'),
            },
          ]}
        />
      )}
      {all.length > 0 && (
        <p className="mt-2 flex flex-wrap items-baseline gap-3">
          {built.length === 0 ? (
            <Button
              onClick={() => {
                // Tools go back to the shed: they are not built in.
                for (const w of all.filter((x) => !/^(tool|hire)\./.test(x.supply.id)))
                  happened('stock', { item: w.supply.id, quantity: -w.need, length_m: null, why: 'built', note: named }); // prettier-ignore
              }}
            >
              This work is done: take its parts out of the shed
            </Button>
          ) : (
            <>
              <span>✓ Done, its parts are taken out of the shed.</span>
              {built.every((m) => !m.waiting) && (
                <Button onClick={() => built.forEach((m) => takeBack('stock', m))}>
                  take back
                </Button>
              )}
            </>
          )}
        </p>
      )}
    </Part>
  );
}
