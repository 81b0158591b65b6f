/** The gate at or nearest to an end: its measures and loads, how it hangs; and how one is cut into a standing fence. */
import { gateFigures, gateLoads } from '../../core/ends/gates.js';
import { pulledOf } from '../../core/ends/options.js';
import { hangsAt } from '../../core/ends/along.js';
import { recordOf } from '../../core/plan/catalogue.js';
import type { Gate, Line } from '../../core/plan/schema.js';
import type { EndReport } from '../../core/report/schema.js';
import { useCatalogue } from '../../session/catalogue.js';
import { commit, useSession } from '../../session/session.js';
import { Check, QuantityField, Select } from '../../ui/parts/controls.js';
import { Num, useUnits } from '../../ui/parts/Num.js';
import { CutIn } from './CutIn.js';
import { GateDrawing } from './GateDrawing.js';
import { HINGE } from './origins.js';

export function GatesTab({ line, end }: { line: Line; end: EndReport }) {
  const gates = useSession((s) => s.plan.gates);
  const own = Object.values(gates).filter((g) => g.line === line.id);
  const gate = own.reduce<Gate | null>((best, g) => (best && Math.abs(best.at_m - end.at_m) <= Math.abs(g.at_m - end.at_m) ? best : g), null); // prettier-ignore
  return (
    <>
      {gate ? (
        <OfGate line={line} gate={gate} />
      ) : (
        <p className="label mb-4">No gate on {line.name} yet.</p>
      )}
      <CutIn line={line} />
    </>
  );
}

function OfGate({ line, gate }: { line: Line; gate: Gate }) {
  const cat = useCatalogue();
  const units = useUnits();
  const report = useSession((s) => s.report?.lines[line.id]);
  const small = report?.requirement?.small ?? false;
  const f = gateFigures(gate, small, cat);
  const hung = report?.ends.find((e) => e.role === 'gate' && hangsAt(gate, e.at_m));
  const set = <K extends keyof Gate>(key: K, value: Gate[K] | undefined, words: string) =>
    commit(`${words}: ${gate.name}`, (d) => {
      const g = d.gates[gate.id]! as Gate;
      if (value === undefined) delete g[key];
      else g[key] = value;
    });
  const loads =
    hung && gateLoads(f, pulledOf(hung), hung.post, recordOf(cat.soils, hung.soil), cat);
  return (
    <section aria-label={gate.name}>
      <h3 className="font-semibold">
        <bdi>{gate.name}</bdi>
      </h3>
      <div className="mt-1 mb-3 flex flex-wrap items-center gap-x-4 gap-y-2">
        <Select
          label="Leaves"
          value={String(gate.leaves ?? 1)}
          options={[
            ['1', 'one'],
            ['2', 'two'],
          ]}
          onChange={(n) => set('leaves', n === '2' ? 2 : undefined, 'leaves')}
        />
        <Select
          label="Its label counts"
          width="max-w-[15rem]"
          value={gate.gross ? 'gross' : 'net'}
          options={[
            ['net', 'the leaf alone'],
            ['gross', 'hinges and latch as well'],
          ]}
          onChange={(v) => set('gross', v === 'gross' ? true : undefined, 'what the label counts')}
        />
        <QuantityField
          label="Weight"
          q="mass"
          at="gates/*/mass_kg"
          value={f.leaf_kg * (gate.leaves ?? 1)}
          onCommit={(kg) => set('mass_kg', kg, 'weight')}
        />
        <QuantityField
          label="Between the pins of a leaf"
          q="tape"
          at="gates/*/hinges_m"
          value={f.hinges_m}
          onCommit={(m) => set('hinges_m', m, 'hinges')}
        />
        <Check
          label="Mesh on it"
          checked={!!gate.mesh}
          onChange={(on) => set('mesh', on || undefined, 'mesh')}
        />
        <Check
          label="A live offset wire on it"
          checked={!!gate.live}
          onChange={(on) => set('live', on || undefined, 'live wire')}
        />
        <Check
          label="A panel now, a gate later"
          checked={!!gate.later}
          onChange={(on) => set('later', on || undefined, 'panel')}
        />
      </div>
      <GateDrawing
        gate={gate}
        of={f}
        pin_N={loads ? loads.hinge_horizontal_force_N : null}
        units={units}
      />
      <dl className="grid max-w-[44rem] grid-cols-[auto_1fr] gap-x-4 gap-y-1">
        <dt className="label">Between the posts</dt>
        <dd>
          <Num value={f.opening_m} q="tape" />; each leaf <Num value={f.leaf_m} q="tape" /> of
          steel; order what is labelled <Num value={f.label_m} q="tape" />
        </dd>
        <dt className="label">Gap below and beside</dt>
        <dd>
          at most <Num value={f.gap_m} q="height" />
          {small ? ', with mesh: lambs, kids or foxes are here' : ' for this stock'}
        </dd>
        {loads && (
          <>
            <dt className="label">On the hinges</dt>
            <dd>
              <Num value={loads.hinge_horizontal_force_N} q="force" from={HINGE} /> out at the top
              pin and in at the lower one, <Num value={loads.post_vertical_load_N} q="force" />{' '}
              down, with somebody on the tip
            </dd>
            <dt className="label">Its moment</dt>
            <dd>
              <Num value={loads.gate_moment_Nm} q="moment" from={HINGE} /> against{' '}
              <Num value={loads.fence_moment_Nm} q="moment" /> of the fence; open at a right angle{' '}
              <Num value={loads.moment_open_90deg_Nm} q="moment" />
            </dd>
            <dt className="label">Post alone, by the code</dt>
            <dd>
              <Num value={loads.depth_open_90deg_m} q="tape" /> deep: that is why it is braced, with
              both diagonals
            </dd>
          </>
        )}
      </dl>
      <ol className="mt-3 max-w-[44rem] list-decimal pl-5 text-[0.929rem]">
        <li>
          Set both posts before the leaf is bought; measure between them at the top, middle and
          foot.
        </li>
        <li>
          Drill a pilot hole for each pin, a little thinner than its thread, level and square to the
          leaf.
        </li>
        <li>Lower pin up, top pin DOWN: the leaf cannot be lifted off its hinges.</li>
        <li>Hang it level, the gap below as above; check that it swings where the ground rises.</li>
        <li>A latch that stock cannot lift; a stop that carries the tip when it is shut.</li>
        {gate.live && (
          <li>
            The live wire stands off towards the stock, on springs, dead when the gate is open.
          </li>
        )}
        {gate.mesh && (
          <li>Mesh down to the gap, ends turned away from where hands and noses go.</li>
        )}
      </ol>
    </section>
  );
}
