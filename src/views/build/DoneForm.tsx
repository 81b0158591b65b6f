/** A task, or a part of it, marked as done with the hours that it took: kept as a record. */
import { useState } from 'react';
import { sum } from '../../core/base/numbers.js';
import type { PlannedTask } from '../../core/build/shifts.js';
import { shareOf } from '../../core/build/parts.js';
import { asSold } from '../../core/supplies/takeoff.js';
import { useCatalogue } from '../../session/catalogue.js';
import { useStanding, type KeptRecord } from '../../session/kept.js';
import { happened } from '../../session/records.js';
import { today } from '../../session/today.js';
import { Button } from '../../ui/parts/Button.js';
import { Check, QuantityField, Select } from '../../ui/parts/controls.js';
import { DateField } from './DateField.js';

const SHARES = [['1', 'all of it'], ['0.75', 'three quarters'], ['0.5', 'half'], ['0.25', 'a quarter']] as const; // prettier-ignore

export function DoneForm({ task }: { task: PlannedTask }) {
  const cat = useCatalogue();
  const shed = useStanding<KeptRecord>('stock').records.length > 0;
  const [day, setDay] = useState(today());
  const [hours, setHours] = useState<number | null>(null);
  const [share, setShare] = useState<(typeof SHARES)[number][0]>('1');
  const [parts, setParts] = useState(true);
  const left = 1 - task.done;
  const part = Number(share) * left;
  const planned_h = (task.amounts.length > 0 ? sum(task.amounts.map((a) => a.hours)) : task.work_h) * part; // prettier-ignore
  const took = hours ?? Math.max(0.25, Math.round(task.left_h * Number(share) * 4) / 4);
  const take = () => {
    happened('work', { task: task.id, kind: task.kind, day, hours: took, share: part, planned_h, counts: null }); // prettier-ignore
    if (!shed || !parts) return;
    const used = new Map<string, number>();
    for (const [item, n] of shareOf(
      task.parts,
      [task.done, task.done + part],
      [task.from_m, task.to_m],
    ))
      // prettier-ignore
      used.set(item, (used.get(item) ?? 0) + n);
    for (const [item, n] of used)
      if (cat.prices[item])
        happened('stock', { item, quantity: -asSold(item, n, cat), length_m: null, why: 'built', note: task.name.slice(0, 200) }); // prettier-ignore
  };
  return (
    <details className="my-2" data-done-form>
      <summary className="cursor-pointer">Done …</summary>
      <div className="flex flex-col items-start gap-2 py-2">
        <DateField label="On" value={day} onCommit={(d) => d && setDay(d)} />
        <Select label="Of what was left" value={share} options={SHARES} onChange={setShare} />
        <QuantityField
          label="It took, for all people together"
          q="hours"
          min={0.05}
          max={5000}
          width="w-16"
          value={took}
          onCommit={setHours}
        />
        {shed && task.parts.length > 0 && (
          <Check label="take its parts out of the shed" checked={parts} onChange={setParts} />
        )}
        <Button strong onClick={take}>
          Mark as done
        </Button>
      </div>
    </details>
  );
}
