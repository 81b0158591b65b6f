import { figure } from '../../core/plan/catalogue.js';
import type { Gate, Line } from '../../core/plan/schema.js';
import { carried, gatesAt } from '../../core/power/circuit.js';
import { useCatalogue } from '../../session/catalogue.js';
import { commit, useSession } from '../../session/session.js';
import { useGates } from '../../ui/parts/AlongField.js';
import { Check, QuantityField } from '../../ui/parts/controls.js';

/** What lies under the gates that stand at a place of a line. */
export function GateCables({ line, at_m }: { line: Line; at_m: number }) {
  const cat = useCatalogue();
  const earthed = useSession((s) => s.plan.lines[line.id]?.strands.some((x) => x.duty === 'earth'));
  const here = gatesAt(useGates(line), at_m);
  return here.map((gate) => {
    const set = (what: string, change: (g: Gate) => void) =>
      commit(`${what} of ${gate.name}`, (d) => change(d.gates[gate.id]!));
    return (
      <fieldset key={gate.id} className="no-print mt-2 flex flex-wrap items-center gap-x-4 gap-y-2">
        <legend className="label">Under {gate.name}</legend>
        <Check
          label="cable for the live strands"
          checked={gate.cable}
          onChange={(on) => set('cable', (g) => void (g.cable = on))}
        />
        {earthed && (
          <Check
            label="cable for the earth strands"
            checked={carried(gate, 'earth')}
            onChange={(on) => set('earth cable', (g) => void (g.earthCable = on))}
          />
        )}
        {gate.cable && (
          <>
            <Check
              label="in a conduit"
              checked={gate.conduit !== false}
              onChange={(on) =>
                set('conduit', (g) => {
                  if (on) delete g.conduit;
                  else g.conduit = false;
                })
              }
            />
            <QuantityField
              label="deep"
              q="height"
              at="gates/*/depth_m"
              value={gate.depth_m ?? figure(cat, 'gate.cableDepth')}
              width="w-20"
              onCommit={(m) => set('depth of the cable', (g) => void (g.depth_m = m))}
            />
          </>
        )}
      </fieldset>
    );
  });
}
