/** Work that the plan does not ask for: put in, changed, taken out. */
import { Trash2 } from 'lucide-react';
import { useState } from 'react';
import { changeBuild } from '../../core/build/edits.js';
import type { PlannedTask } from '../../core/build/shifts.js';
import { freeId } from '../../core/plan/ids.js';
import type { BuildPlan } from '../../core/plan/schema.js';
import { commit, useSession } from '../../session/session.js';
import { Button } from '../../ui/parts/Button.js';
import { NameField, Part, QuantityField, Select } from '../../ui/parts/controls.js';
import { FieldFault } from '../../ui/parts/FieldFault.js';
import { fullName } from './built.js';

export function OwnTasks({ tasks }: { tasks: readonly PlannedTask[] }) {
  const own = useSession((s) => s.plan.build?.own) ?? NONE;
  const lines = useSession((s) => s.plan.lines);
  const [name, setName] = useState('');
  const [line, setLine] = useState('');
  const [fault, setFault] = useState<string | null>(null);
  const add = () => {
    const words = name.trim();
    if (words === '') return setFault('A name is wanted: what is to be done?');
    setFault(null);
    setName('');
    commit(`own task ${words}`, (d) => {
      const id = freeId(d.build?.own ?? {}, 'own');
      const made = { id, name: words.slice(0, 80), hours: 1, people: 1, ...(line ? { line } : {}) };
      changeBuild(d, { own: { ...d.build?.own, [id]: made } });
    });
  };
  const others = tasks.filter((t) => t.kind !== 'own' && t.start !== null);
  return (
    <Part title="Work of your own">
      {Object.values(own).map((o) => (
        <div key={o.id} className="mb-2 flex flex-wrap items-center gap-x-3 gap-y-1">
          <NameField
            name={o.name}
            label={`Name of ${o.name}`}
            width="w-52"
            onCommit={(n) => commit(`renamed ${o.name}`, (d) => void (d.build!.own![o.id]!.name = n))} // prettier-ignore
          />
          <QuantityField
            label="hours for one person"
            q="hours"
            at="build/own/*/hours"
            min={0.25}
            width="w-16"
            value={o.hours}
            onCommit={(h) => commit(`hours of ${o.name}`, (d) => void (d.build!.own![o.id]!.hours = h))} // prettier-ignore
          />
          <QuantityField
            label="people"
            q="count"
            at="build/own/*/people"
            width="w-12"
            value={o.people}
            onCommit={(n) => commit(`people of ${o.name}`, (d) => void (d.build!.own![o.id]!.people = n))} // prettier-ignore
          />
          <Select
            label="after"
            width="max-w-[16rem]"
            value={o.after?.[0] ?? ''}
            options={[['', 'nothing'], ...others.map((t) => [t.id, fullName(t, lines)] as const)]}
            onChange={(id) =>
              commit(`${o.name} waits`, (d) => {
                const own = d.build!.own![o.id]!;
                if (id) own.after = [id];
                else delete own.after;
              })
            }
          />
          <Button
            aria-label={`Take out ${o.name}`}
            onClick={() =>
              commit(`took out ${o.name}`, (d) => {
                const rest = { ...d.build?.own };
                delete rest[o.id];
                changeBuild(d, { own: Object.keys(rest).length > 0 ? rest : undefined });
              })
            }
          >
            <Trash2 size={14} aria-hidden />
          </Button>
        </div>
      ))}
      <form
        className="flex flex-wrap items-end gap-2"
        onSubmit={(e) => {
          e.preventDefault();
          add();
        }}
      >
        <label className="flex flex-col">
          <span className="label">What is to be done</span>
          <input
            className="field w-56"
            value={name}
            maxLength={80}
            onChange={(e) => setName(e.target.value)}
          />{' '}
          {/* prettier-ignore */}
        </label>
        <Select
          label="On"
          value={line}
          options={[['', 'the property'], ...Object.values(lines).map((l) => [l.id, l.name] as const)]} // prettier-ignore
          onChange={setLine}
        />
        <Button type="submit">Put it in</Button>
        {fault && <FieldFault>{fault}</FieldFault>}
      </form>
    </Part>
  );
}
const NONE: NonNullable<BuildPlan['own']> = {};
