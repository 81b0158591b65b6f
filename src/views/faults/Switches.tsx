/** Switches opened and closed while a fault is looked for: what is cut off shows no longer, and that tells. */
import { useState } from 'react';
import { say } from '../../core/base/units.js';
import { switchesOf } from '../../core/rounds/switches.js';
import type { Place } from '../../core/power/pulseNet.js';
import { happened } from '../../session/records.js';
import { useSession } from '../../session/session.js';
import { Button } from '../../ui/parts/Button.js';
import { Caution } from '../../ui/parts/controls.js';
import { useUnits } from '../../ui/parts/Num.js';
import { PlaceOnLine } from '../rounds/Elsewhere.js';
import { useDay } from '../rounds/rounds.js';
import { placeAsked } from './asked.js';

const same = (a: Place, b: Place): boolean => a.line === b.line && Math.abs(a.at_m - b.at_m) < 0.01;

/** @param open those that stand open now */
export function Switches({ open, unit }: { open: readonly Place[]; unit: string }) {
  const lines = useSession((s) => s.plan.lines);
  const units = useUnits();
  const { who } = useDay();
  const [place, setPlace] = useState({ line: '', at_m: 0 });
  const shut = switchesOf({ lines }).filter((p) => !open.some((o) => same(o, p)));
  const name = (p: Place) => `${lines[p.line]?.name ?? p.line}, ${say(p.at_m, 'along', units)}`;
  const put = (what: 'switch_open' | 'switch_closed', p: Place) => {
    happened('events', { what, line: p.line, at_m: p.at_m, spot: null, photo: null, note: '', who });
    // The first that is read with it open is read where one stands.
    if (what === 'switch_open') placeAsked(unit, p.line, p.at_m);
  };
  return (
    <details className="mt-4" open={open.length > 0} data-switches>
      <summary className="cursor-pointer">
        Switches{open.length > 0 && <strong className="text-warn">: {open.length} open</strong>}
      </summary>
      <p className="label py-1">
        A switch opened is a reading: where volts come back, the fault lies beyond it; where they stay low, before it. Read
        on the side that is still fed, at the switch or at the unit.
      </p>
      <ul>
        {open.map((p) => (
          <li key={name(p)} className="flex items-center justify-between gap-2 py-1" data-open>
            <span>△ {name(p)}: open</span>
            <Button onClick={() => put('switch_closed', p)} aria-label={`Closed again: ${name(p)}`}>closed again</Button>
          </li>
        ))}
        {shut.map((p) => (
          <li key={name(p)} className="flex items-center justify-between gap-2 py-1">
            <span>{name(p)}</span>
            <Button onClick={() => put('switch_open', p)} aria-label={`I opened it: ${name(p)}`}>I opened it</Button>
          </li>
        ))}
      </ul>
      <p className="flex flex-wrap items-center gap-2 py-1">
        <PlaceOnLine line={place.line} at_m={place.at_m} onChange={(line, at_m) => setPlace({ line, at_m })} />
        {lines[place.line] && <Button onClick={() => put('switch_open', place)}>I parted the fence here</Button>}
      </p>
      <Caution>By its handle, or with the unit off. Stock may walk through what is cut off.</Caution>
    </details>
  );
} // prettier-ignore
