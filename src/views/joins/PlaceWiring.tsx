/** One place: its drawing, what is tied there, and the hand that ties and unties. */
import { useState } from 'react';
import { say } from '../../core/base/units.js';
import { asProposed, copyTies, placesAlike, setMetal, setSwitch, setTies, switchIn, tie, tieBetween, untie } from '../../core/edit/joining.js'; // prettier-ignore
import { METALS, type Metal } from '../../core/plan/schemaParts.js';
import type { Line } from '../../core/plan/schema.js';
import type { ConnectorId } from '../../core/power/ties.js';
import { USUAL_CONNECTOR } from '../../core/power/ties.js';
import { useCatalogue } from '../../session/catalogue.js';
import { commit, tell, useSession } from '../../session/session.js';
import { Button } from '../../ui/parts/Button.js';
import { Check, Select } from '../../ui/parts/controls.js';
import { DataTable } from '../../ui/parts/DataTable.js';
import { useUnits } from '../../ui/parts/Num.js';
import { useRoving } from '../../ui/parts/roving.js';
import type { PlaceOn, Wired } from './fence.js';
import { GateCables } from './GateCables.js';
import { endWords, KINDS, ofMany, runsAt } from './words.js';
import { Wiring } from './Wiring.js';

interface Props {
  readonly at: PlaceOn;
  readonly line: Line;
  readonly wired: Wired;
}

export function PlaceWiring({ at: { place, at_m }, line, wired }: Props) {
  const units = useUnits();
  const cat = useCatalogue();
  const id = useSession((s) => s.id);
  const lines = useSession((s) => s.plan.lines);
  const usual = useSession((s) => s.plan.connectors) ?? USUAL_CONNECTOR;
  const [held, setHeld] = useState<number | null>(null);
  const [kind, setKind] = useState<ConnectorId>(place.ties[0]?.kind ?? usual);
  const where = `${say(at_m, 'length', units)} on ${line.name}`;
  const many = ofMany(place);
  const words = (end: number) => endWords(place.arriving[end]!, lines, units, many);
  const alike = placesAlike(place, wired.places);

  const metal = useSession((s) => {
    const { join } = place;
    return join && s.plan.lines[join.line]?.joins?.find((j) => j.at_m === join.at_m)?.metal;
  });
  const runs = runsAt(place, lines, many);
  const change = (what: string, recipe: Parameters<typeof commit>[1]) => {
    commit(`${what} at ${where}`, recipe);
    tell(`${what} at ${where}`);
  };
  const join = (a: number, b: number) => {
    const known = tieBetween(place, a, b);
    if (known >= 0) change('untied', (d) => untie(d, place, known));
    else change('tied', (d) => tie(d, place, { a, b, kind }));
  };
  const press = (end: number) => {
    if (held === null) return setHeld(end);
    setHeld(null);
    if (held !== end) join(held, end);
  };
  const roving = useRoving<HTMLDivElement>('[role=button]');
  return (
    <section aria-label={`Wiring at ${where}`}>
      <div className="mb-1 flex flex-wrap items-baseline justify-between gap-2">
        <h3 className="font-semibold">
          {say(at_m, 'length', units)}, {KINDS[place.kind]}
        </h3>
        <span className="label">{place.join ? 'set by hand' : 'as proposed'}</span>
      </div>
      <p className="label no-print mb-1" role="status">
        {held === null
          ? 'Press two strand ends to tie them; press the two of a tie to take it away.'
          : `Held: ${words(held)}. Press the other end, or the same one to let go.`}
      </p>
      <div {...roving}>
        <Wiring
          place={place}
          lines={lines}
          units={units}
          fed={wired.fed}
          held={held}
          onEnd={press}
        />
      </div>
      <div className="no-print mt-2 flex flex-wrap items-center gap-2">
        <Select
          label="Tie with"
          value={kind}
          options={Object.entries(cat.connectors).map(
            ([k, c]) => [k as ConnectorId, c.name.toLowerCase()] as const,
          )}
          onChange={(k) => {
            setKind(k);
            if (place.ties.length > 0 && place.ties.some((t) => t.kind !== k))
              change(
                `all ties ${cat.connectors[k]!.name.toLowerCase()}`,
                (d) =>
                setTies(d, place, place.ties.map((t) => ({ ...t, kind: k }))), // prettier-ignore
              );
          }}
        />
        {runs.length > 0 && (
          <Select
            label="Cut-out switch before"
            value=""
            options={[['', '…'], ...runs.map((r, k) => [String(k), r.words] as const)]}
            onChange={(k) =>
              k !== '' && change('switch in', (d) => void switchIn(d, place, runs[Number(k)]!.of))
            }
          />
        )}
        {place.ties.length > 0 && (
          <Select
            label="Jumpers of"
            value={metal ?? ''}
            options={[['', 'the fence’s own metal'], ...METALS.map((m) => [m, m] as const)]}
            onChange={(m) =>
              change(m === '' ? 'jumpers of its own metal' : `jumpers of ${m}`, (d) =>
                setMetal(d, place, m === '' ? null : (m as Metal)),
              )
            }
          />
        )}
        {place.join && (
          <Button onClick={() => change('as proposed', (d) => asProposed(d, place))}>
            As proposed
          </Button>
        )}
        {alike.length > 0 && (
          <Button
            onClick={() =>
              change(`the same at ${alike.length} other places as`, (d) =>
                copyTies(d, place, alike),
              )
            }
          >
            The same at {alike.length} like this
          </Button>
        )}
        <a className="button" href={`/wiring/${id}?line=${line.id}`}>
          Sheet to build from
        </a>
      </div>
      {place.kind === 'gate' && <GateCables line={line} at_m={at_m} />}
      <TieTwo
        ends={place.arriving.flatMap((a, k) =>
          a.duty === 'cold' ? [] : [[String(k), words(k)] as const],
        )}
        onTie={(a, b) => tieBetween(place, a, b) < 0 && join(a, b)}
      />
      <div className="mt-3 max-w-[40rem]">
        <DataTable
          label={`Ties at ${where}`}
          rows={place.ties.map((t, k) => ({ ...t, k }))}
          keyOf={(t) => `${t.a} ${t.b}`}
          columns={[
            {
              name: 'from',
              head: true,
              className: '!text-ink !text-[1rem]',
              cell: (t) => words(t.a),
            },
            { name: 'to', cell: (t) => words(t.b) },
            { name: 'with', cell: (t) => cat.connectors[t.kind]!.name.toLowerCase() },
            {
              name: 'switch',
              cell: (t) =>
                place.arriving[t.a]!.duty === 'live' && (
                  <Check
                    label="cut-out"
                    spoken={`Cut-out switch between ${words(t.a)} and ${words(t.b)}`}
                    checked={t.switch ?? false}
                    onChange={(on) =>
                      change(on ? 'switch in' : 'switch out', (d) => setSwitch(d, place, t.k, on))
                    }
                  />
                ),
            },
            {
              name: 'untie',
              quiet: true,
              n: true,
              cell: (t) => (
                <Button
                  className="small"
                  aria-label={`Untie ${words(t.a)} and ${words(t.b)}`}
                  onClick={() => change('untied', (d) => untie(d, place, t.k))}
                >
                  untie
                </Button>
              ),
            },
          ]}
        />
        {place.ties.length === 0 && <p className="label">Nothing is tied here.</p>}
      </div>
    </section>
  );
}

/** Two ends out of lists: for a thumb in a glove, and for those who do not see the drawing. */
function TieTwo({
  ends,
  onTie,
}: {
  ends: readonly (readonly [string, string])[];
  onTie: (a: number, b: number) => void;
}) {
  const [pair, setPair] = useState<readonly [string, string]>([ends[0]?.[0] ?? '', ends[1]?.[0] ?? '']); // prettier-ignore
  if (ends.length < 2) return null;
  return (
    <div className="no-print mt-2 flex flex-wrap items-center gap-2">
      <Select label="Tie" value={pair[0]} options={ends} onChange={(a) => setPair([a, pair[1]])} />
      <Select label="to" value={pair[1]} options={ends} onChange={(b) => setPair([pair[0], b])} />
      <Button
        disabled={pair[0] === pair[1]}
        onClick={() => onTie(Number(pair[0]), Number(pair[1]))}
      >
        Tie
      </Button>
    </div>
  );
}
