/** Wires that the catalogue does not have. */
import type { OwnWire } from '../../core/plan/schema.js';
import { commit, useSession } from '../../session/session.js';
import { Button } from '../../ui/parts/Button.js';
import { QuantityField, Select } from '../../ui/parts/controls.js';
import type { Strained } from './strained.js';

const NEW: OwnWire = { name: 'Own wire', diameter_mm: 2.5, tensile_MPa: 1200, coating: 'zinc', coil_m: 1000 }; // prettier-ignore

export function OwnWires({ of: { line } }: { of: Strained }) {
  const own = useSession((s) => s.plan.ownWires) ?? {};
  const plan = useSession((s) => s.plan);
  const inUse = (id: string) =>
    Object.values(plan.lines).some((l) => l.strands.some((s) => s.wire === id)) ||
    Object.values(plan.designs ?? {}).some((d) => d.strands.some((s) => s.wire === id)) ||
    (plan.breakTests ?? []).some((t) => t.wire === id);
  const change = (id: string, part: Partial<OwnWire>) =>
    commit('own wire', (d) => {
      Object.assign(d.ownWires![id]!, part);
    });
  return (
    <section aria-label="Own wires" className="mt-4">
      <h3 className="heading">Wires of your own</h3>
      {Object.entries(own).map(([id, w]) => (
        <fieldset
          key={id}
          className="border-rule my-2 flex flex-wrap items-center gap-x-4 gap-y-2 border-b pb-2"
        >
          <legend className="sr-only">{w.name}</legend>
          <span className="inline-flex items-center gap-1.5">
            <label className="label" htmlFor={`name-${id}`}>
              Name
            </label>
            <input
              id={`name-${id}`}
              className="field w-40"
              maxLength={60}
              defaultValue={w.name}
              onBlur={(e) =>
                e.target.value.trim() &&
                e.target.value !== w.name &&
                change(id, { name: e.target.value.trim() })
              }
            />
          </span>
          <QuantityField
            label="Diameter"
            q="diameter"
            min={0.001}
            max={0.006}
            width="w-20"
            value={w.diameter_mm / 1000}
            onCommit={(v) => change(id, { diameter_mm: v * 1000 })}
          />
          <QuantityField
            label="Strength"
            q="strength"
            min={200e6}
            max={2200e6}
            width="w-20"
            value={w.tensile_MPa * 1e6}
            onCommit={(v) => change(id, { tensile_MPa: v / 1e6 })}
          />
          <Select
            label="Coating"
            value={w.coating}
            options={[
              ['zinc', 'zinc'],
              ['aluminium', 'aluminium'],
            ]}
            onChange={(coating) => change(id, { coating })}
          />
          <QuantityField
            label="Coil"
            q="length"
            min={10}
            max={5000}
            width="w-20"
            value={w.coil_m}
            onCommit={(v) => change(id, { coil_m: v })}
          />
          <QuantityField
            label="Loses in a year"
            q="percent"
            min={0}
            max={0.6}
            width="w-16"
            value={w.creep ?? 0}
            onCommit={(v) => change(id, { creep: v })}
          />
          <Button
            onClick={() =>
              commit(`strands of ${line.name} of ${w.name}`, (d) => {
                for (const s of d.lines[line.id]!.strands) if (!s.kept) s.wire = id;
              })
            }
          >
            Use it on {line.name}
          </Button>
          <Button
            disabled={inUse(id)}
            title={inUse(id) ? 'It is in use' : undefined}
            onClick={() =>
              commit('own wire taken away', (d) => {
                delete d.ownWires![id];
                if (Object.keys(d.ownWires!).length === 0) delete d.ownWires;
              })
            }
          >
            Take it away
          </Button>
        </fieldset>
      ))}
      <Button
        onClick={() =>
          commit('own wire', (d) => {
            const all = (d.ownWires ??= {});
            let k = 1;
            while (all[`own-${k}`]) k++;
            all[`own-${k}`] = { ...NEW, name: `Own wire ${k}` };
          })
        }
      >
        Add a wire
      </Button>
    </section>
  );
}
