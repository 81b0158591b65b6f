/** The wiring of every place of a line on paper, one A5 sheet each, to be built from in the field. */
import { useMemo } from 'react';
import { say, type Units } from '../../core/base/units.js';
import { figure, recordOf, type Catalogue } from '../../core/plan/catalogue.js';
import { catalogue } from '../../core/plan/shipped.js';
import { ownCatalogue } from '../../core/plan/ownCatalogue.js';
import type { Line, Plan } from '../../core/plan/schema.js';
import { gatesAt } from '../../core/power/circuit.js';
import { insulatorAt } from '../../core/strands/insulators.js';
import { piecesOf, takenAt, type Place } from '../../core/wiring/place.js';
import { deadTail } from '../../core/wiring/tail.js';
import { Card, CardPages } from '../print/CardPages.js';
import { numbered, type Leaf } from '../print/leaf.js';
import { OnLoaded, type Loaded } from '../print/OnLoaded.js';
import { placesOn, wiredOf, type PlaceOn, type Wired } from './fence.js';
import { chainWords, FED, KINDS, LEADS, ofMany, worstFed } from './words.js';
import { Wiring } from './Wiring.js';

export function WiringSheets({ id }: { id: string }) {
  return (
    <OnLoaded id={id} words="Drawing the wiring …">
      {(loaded) => <Sheets id={id} {...loaded} />}
    </OnLoaded>
  );
}

function Sheets({ id, plan, report }: { id: string } & Loaded) {
  const asked = new URLSearchParams(location.search);
  const line = plan.lines[asked.get('line') ?? ''];
  const cat = useMemo(() => ownCatalogue(catalogue, plan), [plan]);
  const wired = useMemo(
    () => wiredOf(plan, report, cat).find((w) => line && w.net.ids.includes(line.id)),
    [plan, report, cat, line],
  );
  const all = line && wired ? wiringLeaves(line, wired, plan, cat) : [];
  return (
    <CardPages
      back={[`/p/${id}/joins`, 'Joins']}
      title={`Wiring of ${line?.name ?? plan.name}`}
      count={`${all.length} ${all.length === 1 ? 'place' : 'places'}, one A5 sheet each.`}
    >
      {line && wired && all.length > 0 ? (
        numbered(all)
      ) : (
        <p role="alert" className="p-6">
          {line ? 'No run of wire yet: nothing to tie.' : 'There is no such line.'}
        </p>
      )}
    </CardPages>
  );
}

/** The places of a line as leaves. */
export const wiringLeaves = (line: Line, wired: Wired, plan: Plan, cat: Catalogue): Leaf[] =>
  placesOn(wired, line.id).map((at) => ({
    key: `${line.id} ${at.place.location} ${at.at_m}`,
    of: line.id,
    draw: (mark) => <Sheet at={at} mark={mark} line={line} wired={wired} plan={plan} cat={cat} />,
  }));

interface SheetProps {
  readonly at: PlaceOn;
  readonly mark: string;
  readonly line: Line;
  readonly wired: Wired;
  readonly plan: Plan;
  readonly cat: Catalogue;
}

function Sheet({ at: { place, at_m }, mark, line, wired, plan, cat }: SheetProps) {
  const units: Units = plan.units;
  const many = ofMany(place);
  const { connectors, jumper_m, switches } = takenAt(place);
  const worst = worstFed(place, wired.fed);
  const taken = Object.entries(connectors)
    .filter(([, n]) => n > 0)
    .map(([kind, n]) => `${n} × ${cat.connectors[kind]!.name.toLowerCase()}`);
  return (
    <Card
      label={`Wiring ${mark}: ${say(at_m, 'length', units)}`}
      title={
        <>
          {' '}
          <bdi>{line.name}</bdi>, {say(at_m, 'length', units)}: {KINDS[place.kind]}
        </>
      }
      mark={mark}
    >
      {worst && worst !== 'twice' && (
        <p className="mt-2 font-semibold">
          As tied here a strand is {FED[worst]}: look at the plan before you build it.
        </p>
      )}
      <div className="mt-3">
        <Wiring place={place} lines={plan.lines} units={units} fed={wired.fed} />
      </div>
      <div className="mt-3 grid grid-cols-2 gap-4 text-[0.86rem]">
        <div>
          <h3 className="font-semibold">Tie</h3>
          <ol className="list-decimal pl-5">
            {piecesOf(place).map((c, k) => (
              <li key={k}>{chainWords(place, c.ends, plan.lines, units, many)}</li>
            ))}
          </ol>
          {place.ties.length === 0 && <p>Nothing is tied here.</p>}
        </div>
        <div>
          <h3 className="font-semibold">Take</h3>
          <ul className="list-disc pl-5">
            {[...taken, ...endsTaken(place, plan, cat)].map((t) => (
              <li key={t}>{t}</li>
            ))}
            {switches > 0 && <li>{switches} × cut-out switch</li>}
            {place.ties.length > 0 && (
              <li>{say(jumper_m, 'tape', units)} of wire, the fence’s own metal</li>
            )}
            {place.arriving.some((a) => a.side !== 'through') && (
              <li>dead tail to the post: {say(deadTail(line, cat), 'height', units)}</li>
            )}
            {place.leads.map((l, k) => (
              <li key={k}>
                {LEADS[l.to]}, {l.duty}
                {l.length_m > 0 ? `: ${say(l.length_m, 'tape', units)}` : ''}
                {l.to === 'gate' ? `, ${laidWords(plan, line, at_m, cat)}` : ''}
              </li>
            ))}
          </ul>
          <p className="mt-2">
            Switch off and prove it off first. Dashed wire: earth strand. Dotted: dead tail to the
            post. A little bridge: the wires do not touch. A gap with a blade: cut-out switch.
            Dashed post: the same one, seen from another side. The tie at an end goes round the long
            way; two turns round a reel.
          </p>
        </div>
      </div>
      <footer className="mt-auto flex justify-between pt-2 text-[0.75rem]">
        <span>
          <bdi>{plan.name}</bdi>
          {plan.invented ? ', invented' : ''}
        </span>
        <span>{place.join ? 'set by hand' : 'as proposed'}</span>
      </footer>
    </Card>
  );
}

/** End insulators of the strands that end at a place, by kind. */
function endsTaken({ arriving }: Place, plan: Plan, cat: Catalogue): string[] {
  const n = new Map<string, number>();
  for (const { line, side, strand, wire } of arriving) {
    const own = plan.lines[line];
    if (side === 'through' || !own?.strands[strand]?.insulated) continue;
    const id = insulatorAt(own, 'end', null, wire, cat);
    if (id) n.set(id, (n.get(id) ?? 0) + 1);
  }
  return [...n].map(
    ([id, k]) => `${k} × ${recordOf(cat.insulators, id).name.toLowerCase()} insulator`,
  );
}

/** How the cables under the gate at a place are laid. */
function laidWords(plan: Plan, line: Line, at_m: number, cat: Catalogue): string {
  const own = Object.values(plan.gates).filter((g) => g.line === line.id);
  const [gate] = gatesAt(own, at_m);
  const deep = say(gate?.depth_m ?? figure(cat, 'gate.cableDepth'), 'height', plan.units);
  return `${gate?.conduit === false ? 'without a conduit' : 'in a conduit'}, ${deep} deep`;
}
