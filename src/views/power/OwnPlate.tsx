import { useState } from 'react';
import type { Energiser } from '../../core/plan/schema.js';
import { plateOfUnit, unitOfPlate, type UnitPlate } from '../../core/power/unit.js';
import { useCatalogue } from '../../session/catalogue.js';
import { commit } from '../../session/session.js';
import { Button } from '../../ui/parts/Button.js';
import { Choice, QuantityField } from '../../ui/parts/controls.js';

type Draft = { -readonly [K in keyof UnitPlate]: UnitPlate[K] };
const VOLTS = [
  ['open_V', 'Open circuit'],
  ['at500_V', 'into 500 ohm'],
  ['at200_V', 'into 200 ohm'],
  ['at100_V', 'into 100 ohm'],
  ['at50_V', 'into 50 ohm'],
] as const;

/** The figures of a plate that is not in the list; taken only when a unit can have such a plate. */
export function OwnPlate({ unit, onDone }: { unit: Energiser; onDone: () => void }) {
  const cat = useCatalogue();
  const [draft, setDraft] = useState<Draft>(() => ({ ...plateOfUnit(unit, cat) }));
  const [fault, setFault] = useState<string | null>(null);
  const at = 'energisers/*/plate';
  const set = (part: Partial<Draft>) => {
    setFault(null);
    setDraft({ ...draft, ...part });
  };
  const take = () => {
    const wrong = faultOf(draft);
    setFault(wrong);
    if (wrong) return;
    const { supply, stored_J, output_J, open_V, at500_V, at200_V, at100_V, at50_V, rise_us, interval_s } = draft; // prettier-ignore
    const plate = { supply, stored_J, output_J, open_V, at500_V, interval_s };
    commit(`plate of ${unit.name}`, (d) => {
      d.energisers[unit.id]!.plate = {
        ...plate,
        ...(at200_V === undefined ? {} : { at200_V }),
        ...(at100_V === undefined ? {} : { at100_V }),
        ...(at50_V === undefined ? {} : { at50_V }),
        ...(rise_us === undefined ? {} : { rise_us }),
      };
    });
    onDone();
  };
  return (
    <form
      className="border-rule my-2 border p-2"
      aria-label={`Plate of ${unit.name}`}
      onSubmit={(e) => {
        e.preventDefault();
        take();
      }}
    >
      <div className="flex flex-wrap gap-x-4 gap-y-1.5">
        <Choice
          label="Supply"
          value={draft.supply}
          options={[
            ['mains', 'mains'],
            ['battery', 'battery'],
            ['solar', 'solar'],
          ]}
          onChange={(supply) => set({ supply })}
        />
        <QuantityField
          label="Stored"
          q="joule"
          at={`${at}/stored_J`}
          width="w-16"
          value={draft.stored_J}
          onCommit={(v) => set({ stored_J: v })}
        />
        <QuantityField
          label="Output into 500 ohm"
          q="joule"
          at={`${at}/output_J`}
          width="w-16"
          value={draft.output_J}
          onCommit={(v) => set({ output_J: v })}
        />
        {VOLTS.map(([key, label]) => (
          <QuantityField
            key={key}
            label={label}
            q="fineVolt"
            at={`${at}/${key}`}
            width="w-16"
            value={draft[key] ?? NaN}
            onCommit={(v) => set({ [key]: v })}
          />
        ))}
      </div>
      <p className="label mt-1">
        As on its plate; what it does not say is left as it stands. Joules stored are more than
        joules of output.
      </p>
      {fault && (
        <p role="alert" className="text-stop mt-1">
          {fault}
        </p>
      )}
      <span className="mt-2 flex gap-2">
        <Button type="submit">Take this plate</Button>
        {unit.plate && (
          <Button
            onClick={() => {
              commit(`plate of ${unit.name} taken away`, (d) => {
                delete d.energisers[unit.id]!.plate;
              });
              onDone();
            }}
          >
            Back to the list
          </Button>
        )}
      </span>
    </form>
  );
}

/** What is asked about a plate that cannot be; null: it can. */
export function faultOf(plate: UnitPlate): string | null {
  if (plate.output_J > plate.stored_J)
    return 'It puts out more joules than it stores: are the two the wrong way round?';
  const volts = [plate.open_V, plate.at500_V, plate.at200_V, plate.at100_V, plate.at50_V].filter(
    (v) => v !== undefined,
  );
  if (volts.some((v, i) => i > 0 && v >= volts[i - 1]!))
    return 'Volts fall as the load grows heavier, from open circuit down: which of these is another figure?';
  return unitOfPlate(plate).fits
    ? null
    : 'No unit of the usual kind stores so much and gives these volts. Are the joules those stored, and the volts those into these loads? Look at the plate again.';
}
