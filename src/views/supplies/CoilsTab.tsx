/** How the coils are cut: each a bar with its runs, its joins, what comes off its end. */
import { Printer } from 'lucide-react';
import { useState } from 'react';
import { say } from '../../core/base/units.js';
import { recordOf } from '../../core/plan/catalogue.js';
import { coilLength, reelsOf } from '../../core/supplies/takeoff.js';
import type { WireCut } from '../../core/supplies/wireCuts.js';
import { Asked } from '../../ui/parts/Asked.js';
import { useCatalogue } from '../../session/catalogue.js';
import { changeRow } from '../../core/supplies/bookEdits.js';
import { happened, takeBack } from '../../session/records.js';
import { commit, useSession } from '../../session/session.js';
import { Button } from '../../ui/parts/Button.js';
import { Caution, Check, Part, QuantityField, Select } from '../../ui/parts/controls.js';
import { useMoney } from '../../ui/parts/money.js';
import { Num, useUnits, WhereFrom } from '../../ui/parts/Num.js';
import { CoilBars } from './CoilBars.js';
import { BOUND } from './origins.js';
import { useCuts, useLedger } from './supplied.js';

export function CoilsTab() {
  const id = useSession((s) => s.id);
  const ledger = useLedger();
  const answer = useCuts(ledger);
  const { value: cuts, waiting } = answer;
  return (
    <>
      <Asked of={answer} doing="Cutting the coils" />
      {cuts === null ? null : cuts.length === 0 ? (
        <p className="label">No strands of plain wire yet: there are no coils to cut.</p>
      ) : (
        cuts.map((cut) => <Wire key={cut.wire} cut={cut} waiting={waiting} id={id} />)
      )}
      <PartCoils ledger={ledger} />
      <Caution>
        A coil springs: put it on the jenny and fix its inner end before the bands are cut. Eyes and
        gloves. Count every offcut back into the bucket: what is left in the grass kills stock.
      </Caution>
    </>
  );
}

function Wire({ cut, waiting, id }: { cut: WireCut; waiting: boolean; id: string }) {
  const cat = useCatalogue();
  const money = useMoney();
  const { cutting } = cut;
  const name = recordOf(cat.wires, cut.wire).name;
  const over = cutting.lower_bound > 0 ? cutting.cost / cutting.lower_bound - 1 : 0;
  const left = cutting.coils.reduce((sum, c) => sum + c.left_m, 0);
  const bought = cutting.coils.filter((c) => c.reel !== null).length;
  const begun = cutting.coils.length - bought;
  return (
    <Part
      title={name}
      aside={
        <a className="button" href={`/coils/${id}?wire=${cut.wire}`}>
          <Printer size={14} aria-hidden /> Cards of the coils
        </a>
      }
    >
      {cut.fault ? (
        <p role="alert" className="text-stop">
          ✕ These coils cannot be cut: {cut.fault}.
        </p>
      ) : (
        <>
          <p className="mb-2" data-cut={cut.wire} aria-busy={waiting}>
            <strong>
              {bought} {bought === 1 ? 'coil' : 'coils'}
              {begun > 0 ? ` and ${begun} begun` : ''}
            </strong>
            , {cutting.joins} {cutting.joins === 1 ? 'join' : 'joins'},{' '}
            <strong>{money(cutting.cost)}</strong>.{' '}
            {over < 1e-6 ? (
              <>No cutting costs less</>
            ) : (
              <>
                No cutting costs less than {money(cutting.lower_bound)}: this is within{' '}
                {(100 * over).toFixed(1)} % of that
              </>
            )}
            <WhereFrom shown={money(cutting.lower_bound)} origin={BOUND} />
            {'. '}
            <Num value={left} q="length" /> is left over.
          </p>
          <Reels wire={cut.wire} />
          <CoilBars cut={cut} />
        </>
      )}
    </Part>
  );
}

/** Lengths in which the wire is sold, each of which may be left. */
function Reels({ wire }: { wire: string }) {
  const cat = useCatalogue();
  const rows = useSession((s) => s.plan.supplyRows);
  const money = useMoney();
  const units = useUnits();
  const reels = reelsOf(wire, cat);
  const left = (item: string) => rows?.[item]?.out ?? false;
  if (reels.length < 2) return null;
  const wanted = reels.filter((r) => !left(r)).length;
  return (
    <div role="group" aria-label="Coils to be had" className="mb-2 flex flex-wrap gap-x-5 gap-y-1">
      {reels.map((item) => (
        <Check
          key={item}
          label={`${say(coilLength(item, cat), 'length', units)} at ${money(cat.prices[item]!.price)}`}
          checked={!left(item)}
          disabled={wanted === 1 && !left(item)}
          onChange={(on) =>
            commit(`${cat.prices[item]!.name}: ${on ? 'to be had' : 'left out'}`, (d) =>
              changeRow(d, item, { out: !on }),
            )
          }
        />
      ))}
    </div>
  );
}

/** Coils that were begun and lie in the shed: they are used first. */
function PartCoils({ ledger }: { ledger: ReturnType<typeof useLedger> }) {
  const cat = useCatalogue();
  const plan = useSession((s) => s.plan);
  const wires = [...new Set(Object.values(plan.lines).flatMap((l) => l.strands.map((s) => s.wire)))].filter((w) => recordOf(cat.wires, w).form === 'plain'); // prettier-ignore
  const [asked, setWire] = useState('');
  const [length_m, setLength] = useState(200);
  const wire = wires.includes(asked) ? asked : wires[0];
  const begun = ledger.stock.filter((m) => m.length_m !== null);
  if (!wire && begun.length === 0) return null;
  return (
    <Part title="Coils begun, in the shed">
      <ul className="mb-2">
        {begun.map((m) => (
          <li key={m.id} className="flex flex-wrap items-baseline gap-3 py-0.5">
            <Num value={m.length_m} q="length" />
            <span>{cat.wires[m.item.slice(5)]?.name ?? m.item}</span>
            {m.waiting ? (
              <span className="label">not sent yet</span>
            ) : (
              <Button onClick={() => takeBack('stock', m)}>used up</Button>
            )}
          </li>
        ))}
      </ul>
      {wire && (
        <div className="flex flex-wrap items-end gap-3">
          {wires.length > 1 && (
            <Select
              label="Wire"
              value={wire}
              width="max-w-[16rem]"
              options={wires.map((w) => [w, recordOf(cat.wires, w).name] as const)}
              onChange={setWire}
            />
          )}
          <QuantityField
            label="Length left on it"
            q="length"
            min={1}
            max={5000}
            value={length_m}
            onCommit={setLength}
          />
          <Button
            onClick={() =>
              happened('stock', { item: `wire.${wire}`, quantity: 1, length_m, why: 'counted' })
            }
          >
            Put it in the shed
          </Button>
        </div>
      )}
    </Part>
  );
}
