import { ArrowLeft, Trash2 } from 'lucide-react';
import { planLength } from '../../core/plan/geometry.js';
import { moveEnergiser } from '../../core/plan/edits.js';
import { Caution, PlaceFields, QuantityField, Select } from '../../ui/parts/controls.js';
import { useCatalogue } from '../../ui/session/catalogue.js';
import { commit, useSession } from '../../ui/session/session.js';
import { look } from '../../ui/session/view.js';
import { LEAD_REACH } from './gestures.js';
import { removeChosen } from './actions.js';
import { NameField } from './LineCard.js';

/** The chosen gate or energiser, in typed fields. */
export function ThingCard({ thing }: { thing: { kind: 'gate' | 'energiser'; id: string } }) {
  return thing.kind === 'gate' ? <GateCard id={thing.id} /> : <EnergiserCard id={thing.id} />;
}

const Back = () => (
  <button className="button !px-1.5" aria-label="Back" onClick={() => look({ thing: null })}>
    <ArrowLeft size={15} aria-hidden />
  </button>
);

const Remove = () => (
  <button className="button self-start" onClick={removeChosen}>
    <Trash2 size={14} aria-hidden /> Take it away
  </button>
);

function GateCard({ id }: { id: string }) {
  const gate = useSession((s) => s.plan.gates[id]!);
  const line = useSession((s) => s.plan.lines[gate.line]!);
  const total = planLength(line);
  const set = (words: string, change: (g: typeof gate) => void) =>
    commit(`${words} of ${gate.name}`, (d) => change(d.gates[id]!));
  return (
    <div className="flex flex-col gap-2">
      <div className="flex items-center gap-1">
        <Back />
        <NameField
          name={gate.name}
          label="Name of the gate"
          onCommit={(name) => set('name', (g) => void (g.name = name))}
        />
      </div>
      <p className="label">A gate on {line.name}. Its opening is measured with its hinges.</p>
      <QuantityField
        label="Middle, from the start"
        q="tape"
        min={0}
        max={total}
        value={gate.at_m}
        onCommit={(m) => set('place', (g) => void (g.at_m = m))}
      />
      <QuantityField
        label="Opening"
        q="tape"
        min={0.5}
        max={20}
        value={gate.width_m}
        onCommit={(m) => set('opening', (g) => void (g.width_m = m))}
      />
      <label className="flex items-center gap-2">
        <input
          type="checkbox"
          className="size-4"
          checked={gate.cable}
          onChange={(event) => set('cable', (g) => void (g.cable = event.target.checked))}
        />
        insulated cable under it
      </label>
      <Remove />
    </div>
  );
}

function EnergiserCard({ id }: { id: string }) {
  const unit = useSession((s) => s.plan.energisers[id]!);
  const lines = useSession((s) => s.plan.lines);
  const cat = useCatalogue();
  const place = (e: number, n: number) =>
    commit(`moved ${unit.name}`, (d) => moveEnergiser(d, id, { e, n }, LEAD_REACH));
  const set = (words: string, change: (e: typeof unit) => void) =>
    commit(`${words} of ${unit.name}`, (d) => change(d.energisers[id]!));
  return (
    <div className="flex flex-col gap-2">
      <div className="flex items-center gap-1">
        <Back />
        <NameField
          name={unit.name}
          label="Name of the energiser"
          onCommit={(name) => set('name', (e) => void (e.name = name))}
        />
      </div>
      <p className="label">
        {unit.line && lines[unit.line]
          ? `Feeds ${lines[unit.line]!.name}.`
          : 'Feeds no line: bring it nearer to one.'}
      </p>
      <Select
        label="Unit"
        value={unit.model}
        options={Object.entries(cat.energisers).map(([k, m]) => [k, m.name] as const)}
        onChange={(model) => set('unit', (e) => void (e.model = model))}
      />
      <PlaceFields at={unit} onMove={place} />
      <Caution>
        One energiser to a fence, never two. Mains work is for a licensed electrician.
      </Caution>
      <Remove />
    </div>
  );
}
