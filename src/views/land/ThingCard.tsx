import { ArrowLeft, Trash2 } from 'lucide-react';
import { planLength } from '../../core/plan/geometry.js';
import { moveEnergiser } from '../../core/edit/edits.js';
import {
  Caution,
  PlaceFields,
  QuantityField,
  Select,
  Check,
  NameField,
} from '../../ui/parts/controls.js';
import { AlongField } from '../../ui/parts/AlongField.js';
import { Num } from '../../ui/parts/Num.js';
import { useCatalogue } from '../../session/catalogue.js';
import { commit, useSession } from '../../session/session.js';
import { look, type Chosen } from '../../session/view.js';
import { LEAD_REACH } from './gestures.js';
import { removeChosen, tableOf } from './actions.js';
import { LandThingFields } from './LandThingCard.js';
import { Button } from '../../ui/parts/Button.js';

/** What is chosen and is no line, in typed fields. */
export function ThingCard({ thing }: { thing: Chosen }) {
  const table = tableOf(thing.kind);
  // What was chosen may have gone by an undo, or in another tab.
  const exists = useSession((s) => table !== null && s.plan[table]?.[thing.id] !== undefined);
  if (!exists) return <p className="label">It is gone.</p>;
  if (thing.kind === 'gate') return <GateCard id={thing.id} />;
  if (thing.kind === 'energiser') return <EnergiserCard id={thing.id} />;
  return <LandThingCard id={thing.id} />;
}

function LandThingCard({ id }: { id: string }) {
  const name = useSession((s) => s.plan.things![id]!.name);
  return (
    <div className="flex flex-col gap-2">
      <div className="flex items-center gap-1">
        <Back />
        <NameField
          name={name}
          label="Name of the thing"
          onCommit={(to) => commit(`name of ${name}`, (d) => void (d.things![id]!.name = to))}
        />
      </div>
      <LandThingFields id={id} />
      <Remove />
    </div>
  );
}

const Back = () => (
  <Button className="!px-1.5" aria-label="Back" onClick={() => look({ thing: null })}>
    <ArrowLeft size={15} aria-hidden />
  </Button>
);

const Remove = () => (
  <Button className="self-start" onClick={removeChosen}>
    <Trash2 size={14} aria-hidden /> Take it away
  </Button>
);

function GateCard({ id }: { id: string }) {
  const gate = useSession((s) => s.plan.gates[id]!);
  const line = useSession((s) => s.plan.lines[gate.line]!);
  const total = planLength(line);
  const report = useSession((s) => s.report?.lines[gate.line]);
  const swings = report?.swings[id];
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
      <p className="label">
        A gate on {line.name}. Its opening is measured with its hinges; left and right are seen from
        the line’s start.
      </p>
      {report && (
        <AlongField
          label="Middle"
          line={line}
          report={report}
          gate={gate}
          value={gate.at_m}
          onCommit={(m) => set('place', (g) => void (g.at_m = Math.min(m, total)))}
        />
      )}
      <QuantityField
        label="Opening"
        q="tape"
        at="gates/*/width_m"
        value={gate.width_m}
        onCommit={(m) => set('opening', (g) => void (g.width_m = m))}
      />
      <Check
        label="insulated cable under it"
        checked={gate.cable}
        onChange={(on) => set('cable', (g) => void (g.cable = on))}
      />
      <Select
        label="Leaves"
        value={String(gate.leaves ?? 1)}
        options={[
          ['1', 'one'],
          ['2', 'two'],
        ]}
        onChange={(k) => set('leaves', (g) => void (g.leaves = k === '2' ? 2 : 1))}
      />
      {gate.leaves !== 2 && (
        <Select
          label="Hung on"
          value={gate.hinge ?? 'start'}
          options={[
            ['start', 'the post nearer the start'],
            ['end', 'the post nearer the end'],
          ]}
          onChange={(hinge) => set('hinges', (g) => void (g.hinge = hinge))}
        />
      )}
      <Select
        label="Swings"
        value={gate.swing ?? ''}
        options={[
          ['', 'not said'],
          ['left', 'to the left'],
          ['right', 'to the right'],
          ['both', 'both ways'],
        ]}
        onChange={(swing) =>
          set('swing', (g) => {
            if (swing) g.swing = swing;
            else delete g.swing;
          })
        }
      />
      {gate.swing && swings && (
        <p>
          Ground under the leaf rises{' '}
          <Num
            value={gate.swing === 'both' ? Math.max(swings.left, swings.right) : swings[gate.swing]}
            q="height"
            from={{
              kind: 'measured',
              title: 'Rise under the swing',
              source: 'Ground under the tip of the leaf, every 15 degrees of its swing',
            }}
          />
        </p>
      )}
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
