/** One A5 card for each coil: what comes off it, in which order, where a join falls. */
import { useMemo } from 'react';
import { say, type Units } from '../../core/base/units.js';
import { recordOf, type Catalogue } from '../../core/plan/catalogue.js';
import { catalogue } from '../../core/plan/shipped.js';
import { ownCatalogue } from '../../core/plan/ownCatalogue.js';
import type { Plan } from '../../core/plan/schema.js';
import { begun } from '../../core/supplies/basket.js';
import type { CutCoil } from '../../core/supplies/mixedCoils.js';
import { cutWires, type WireCut } from '../../core/supplies/wireCuts.js';
import { jointsOfLine } from '../../core/wire/wires.js';
import { Card, CardPages } from '../print/CardPages.js';
import { numbered, type Leaf } from '../print/leaf.js';
import { OnLoaded, type Loaded } from '../print/OnLoaded.js';
import { useRecordsOf } from '../print/recordsOf.js';
import type { Move } from './supplied.js';

export function CoilCards({ id }: { id: string }) {
  return (
    <OnLoaded id={id} words="Cutting the coils …">
      {(loaded) => <Cards id={id} {...loaded} />}
    </OnLoaded>
  );
}

function Cards({ id, plan, report }: { id: string } & Loaded) {
  const stock = useRecordsOf<Move>(id, 'stock');
  const asked = new URLSearchParams(location.search).get('wire');
  const cat = useMemo(() => ownCatalogue(catalogue, plan), [plan]);
  const cuts = useMemo(() => {
    if (!stock) return null;
    const parts = begun({ stock, orders: [], deliveries: [] });
    return cutWires(plan, report, cat, parts);
  }, [plan, report, cat, stock]);
  if (!cuts) return <p className="p-6">Cutting the coils …</p>;
  const chosen = cuts.filter((c) => asked === null || c.wire === asked);
  const cards = coilLeaves(chosen, plan, cat);
  return (
    <CardPages
      back={[`/p/${id}/supplies`, 'Supplies']}
      title={`Coils of ${plan.name}`}
      count={`${cards.length} ${cards.length === 1 ? 'coil' : 'coils'}, one A5 card each.`}
    >
      {cards.length > 0 ? (
        numbered(cards)
      ) : (
        <p role="alert" className="p-6">
          There are no coils to cut.
        </p>
      )}
    </CardPages>
  );
}

/** The coils of some wires as leaves. */
export const coilLeaves = (cuts: readonly WireCut[], plan: Plan, cat: Catalogue): Leaf[] =>
  cuts.flatMap((cut) =>
    cut.cutting.coils.map((coil, k) => ({
      key: `${cut.wire} ${k}`,
      of: recordOf(cat.wires, cut.wire).name,
      draw: (mark: string) => (
        <CoilCard cut={cut} coil={coil} number={k + 1} mark={mark} plan={plan} cat={cat} />
      ),
    })),
  );

interface CoilCardProps {
  readonly cut: WireCut;
  readonly coil: CutCoil;
  readonly number: number;
  readonly mark: string;
  readonly plan: Plan;
  readonly cat: Catalogue;
}

function CoilCard({ cut, coil, number, mark, plan, cat }: CoilCardProps) {
  const { units } = plan;
  const length = (m: number) => say(m, 'length', units);
  return (
    <Card
      label={`Coil ${number} of ${recordOf(cat.wires, cut.wire).name}`}
      title={`Coil ${number}, ${length(coil.length_m)}${coil.reel === null ? ', begun' : ''}`}
      mark={mark}
    >
      <p className="mt-1 text-[0.92rem]">
        {recordOf(cat.wires, cut.wire).name}. On the jenny first, inner end fixed, then cut the
        bands. In this order, from the outside; what a run takes has its ties and spare in it.
      </p>
      {coil.pieces.length > 0 && <Pieces cut={cut} coil={coil} plan={plan} cat={cat} />}
      {coil.shorts.length > 0 && <Shorts cut={cut} coil={coil} units={units} />}
      <p className="mt-3 text-[0.92rem]">
        {coil.left_m >= 1
          ? `${length(coil.left_m)} is left: roll it, tie it, write its length on it, back to the shed.`
          : 'Nothing is left of it.'}
      </p>
      <footer className="mt-auto pt-1 text-[0.7rem]">
        <bdi>{plan.name}</bdi>
        {plan.invented ? ', invented' : ''}. Eyes, gloves. Never let go of an end: it springs. A
        kink is cut out. Offcuts into the bucket, counted.
      </footer>
    </Card>
  );
}

/** What is strung of it, in order. */
function Pieces({ cut, coil, plan, cat }: Pick<CoilCardProps, 'cut' | 'coil' | 'plan' | 'cat'>) {
  const { units } = plan;
  const cell = 'px-1 py-[1.2mm]';
  const spans = cut.spans[cut.cutting.coils.indexOf(coil)]!;
  let off = 0;
  return (
    <table className="mt-2 w-full border-collapse text-[0.92rem]">
      <thead>
        <tr className="border-b border-black text-left align-bottom">
          <th className={cell}>
            <span className="sr-only">done</span>
          </th>
          <th className={cell}>line and run</th>
          <th className={cell}>strand</th>
          <th className={`${cell} text-right`}>takes</th>
          <th className={`${cell} text-right`}>left on it</th>
          <th className={cell}>its end</th>
        </tr>
      </thead>
      <tbody>
        {coil.pieces.map(({ run, length_m }, k) => {
          const own = cut.runs[run]!;
          const { from_m: start, to_m: end } = spans[k]!;
          off += length_m;
          return (
            <tr key={k} className="border-b border-neutral-300 align-baseline">
              <td className={cell}>
                <span className="mr-1 inline-block size-[3.4mm] border border-black align-[-0.4mm]" />
                <span className="tabular-nums">{k + 1}</span>
              </td>
              <td className={cell}>
                <bdi>{plan.lines[own.line]?.name}</bdi>, {say(own.from_m, 'length', units)} to{' '}
                {say(own.to_m, 'length', units)}
                {start !== null && (
                  <span className="block text-[0.8rem]">
                    goes on from the join at {say(start, 'length', units)} of this run
                  </span>
                )}
              </td>
              <td className={`${cell} tabular-nums`}>{own.strand}</td>
              <td className={`${cell} text-right font-semibold whitespace-nowrap tabular-nums`}>
                {say(length_m, 'length', units)}
              </td>
              <td className={`${cell} text-right whitespace-nowrap tabular-nums`}>
                {say(coil.length_m - off, 'length', units)}
              </td>
              <td className={cell}>
                {end === null ? (
                  'tied off'
                ) : (
                  <>
                    <strong>join</strong> at {say(end, 'length', units)} from the start of the run,{' '}
                    {recordOf(
                      cat.joints,
                      jointsOfLine(plan.lines[own.line]!).join,
                    ).name.toLowerCase()}
                  </>
                )}
              </td>
            </tr>
          );
        })}
      </tbody>
    </table>
  );
}

/** Short pieces that come off its end, alike ones together. */
function Shorts({ cut, coil, units }: { cut: WireCut; coil: CutCoil; units: Units }) {
  const alike = new Map<string, { use: string; length_m: number; n: number }>();
  for (const k of coil.shorts) {
    const { use, length_m } = cut.shorts[k]!;
    const key = `${use} ${length_m.toFixed(1)}`;
    const known = alike.get(key);
    if (known) known.n++;
    else alike.set(key, { use, length_m, n: 1 });
  }
  return (
    <div className="mt-3 text-[0.92rem]">
      <h3 className="font-semibold">From its end, short pieces</h3>
      <ul>
        {[...alike.values()].map((s) => (
          <li key={`${s.use} ${s.length_m}`}>
            {s.n} of {say(s.length_m, 'tape', units)}: {s.use}
          </li>
        ))}
      </ul>
    </div>
  );
}
