/** What each tool asks for, and what its reading says: a tension with its error, at 15 degrees C, beside the plan. */
import { useState } from 'react';
import { say } from '../../core/base/units.js';
import { sentence } from '../../core/base/words.js';
import { figure } from '../../core/plan/catalogue.js';
import { byNote, byPull, bySpring, byTaps, type Read, type Taps, type Tool } from '../../core/wire/checks.js'; // prettier-ignore
import { noteOf } from '../../core/wire/pull.js';
import { bayAt, reduced, REFERENCE_C, springOf, tensionsAt } from '../../core/wire/strung.js';
import { wireOf } from '../../core/wire/wires.js';
import { deviceNote } from '../../core/rounds/logged.js';
import { simulatedPull } from '../../ui/devices/scale.js';
import { Button } from '../../ui/parts/Button.js';
import { Check, QuantityField } from '../../ui/parts/controls.js';
import { Num, useUnits, type Origin } from '../../ui/parts/Num.js';
import { NoteFinder } from './NoteFinder.js';
import { PULL, SPRING, STATE, WAVE } from './origins.js';
import type { Strained } from './strained.js';
import { TapTimer } from './TapTimer.js';

/** Tension that the plan has in the bay at a place, at 15 degrees C, N. */
export const expectedAt = ({ strung, bayed }: Strained, at_m: number): number =>
  strung.tension15_N[bayAt(bayed.posts, at_m)]!;

/** Length of the bay at a place, m. */
const bayLength = ({ bayed, strung }: Strained, at_m: number): number =>
  strung.shape.chord_m[bayAt(bayed.posts, at_m)]!;

interface ReadingProps {
  readonly tool: Tool;
  readonly of: Strained;
  readonly place: number;
  readonly celsius: number;
  /** @param note where it came from that nobody keyed */
  readonly onKeep: (read: Read, detail: string, note?: string) => void;
}

/** What one tool asks for, and what that says. */
export function Reading(props: ReadingProps) {
  switch (props.tool) {
    case 'taps':
      return <ByTaps {...props} />;
    case 'pull':
      return <ByPull {...props} />;
    case 'spring':
      return <BySpring {...props} />;
    case 'note':
      return <ByNote {...props} />;
    case 'scale':
      return <ByScale {...props} />;
  }
}

/** Tries a reading: a figure, or the reason why it means nothing. */
function tried(read: () => Read): Read | string {
  try {
    return read();
  } catch (fault) {
    if (fault instanceof RangeError) return fault.message;
    throw fault;
  }
}

function ByTaps({ of, ...rest }: ReadingProps) {
  const units = useUnits();
  const { mass_kg_per_m } = wireOf(of.wire, of.cat);
  const length = of.strung.shape.length_m;
  const [over_m, setOver] = useState(Math.min(figure(of.cat, 'wire.pulse'), length));
  const [taps, setTaps] = useState<Taps | null>(null);
  const read = taps && byTaps(taps, over_m, mass_kg_per_m);
  return (
    <div className="mt-2">
      <p className="max-w-[44rem]">
        Strike the strand beside a post where it is held fast; the pulse runs to the next hold and
        back. Tap when you feel it return, and at each return after.
      </p>
      <QuantityField
        label="It runs over"
        q="length"
        min={2}
        max={Math.max(2, length)}
        width="w-20"
        value={over_m}
        onCommit={setOver}
      />
      <TapTimer onTaps={setTaps} />
      <Result
        of={of}
        {...rest}
        read={read}
        from={WAVE}
        detail={`one return ${say(taps?.return_s ?? NaN, 'seconds', units)} over ${say(over_m, 'length', units)}`}
      />
    </div>
  );
}

function ByPull({ of, place, ...rest }: ReadingProps) {
  const units = useUnits();
  const { EA_N } = of.strung.steel;
  const length = of.strung.shape.length_m;
  const [bay, setBay] = useState(() => bayLength(of, place));
  const [force, setForce] = useState(NaN);
  const [moved, setMoved] = useState(NaN);
  const [slides, setSlides] = useState(false);
  const [from, setFrom] = useState(Math.min(20, length));
  const ready = force > 0 && moved > 0;
  const read = ready ? tried(() => byPull({ force_N: force, deflection_m: moved, span_m: bay, EA_N, wire_length_m: slides ? from : bay })) : null; // prettier-ignore
  return (
    <div className="mt-2">
      <div className="flex flex-wrap items-center gap-x-5 gap-y-2">
        <QuantityField
          label="Bay"
          q="tape"
          min={0.5}
          max={200}
          width="w-16"
          value={bay}
          onCommit={setBay}
        />
        <QuantityField
          label="Pulled with"
          q="force"
          min={1}
          max={3000}
          width="w-20"
          value={force}
          onCommit={setForce}
        />
        <QuantityField
          label="it moved"
          q="height"
          min={0.002}
          max={2}
          width="w-20"
          value={moved}
          onCommit={setMoved}
        />
        <Check label="the wire slides over its posts" checked={slides} onChange={setSlides} />
        {slides && (
          <QuantityField
            label="from"
            q="length"
            min={1}
            max={Math.max(1, length)}
            width="w-16"
            value={from}
            onCommit={setFrom}
          />
        )}
      </div>
      <p className="label">
        Held fast at both posts a strand is much stiffer than where it slides: the same pull then
        means less tension. Look which it is.
      </p>
      <Result
        of={of}
        place={place}
        {...rest}
        read={read}
        from={PULL}
        detail={`${say(force, 'force', units)} moved it ${say(moved, 'height', units)} in a bay of ${say(bay, 'tape', units)}, ${slides ? `sliding from ${say(from, 'length', units)}` : 'held fast'}`}
      />
    </div>
  );
}

function BySpring({ of, ...rest }: ReadingProps) {
  const units = useUnits();
  const [length, setLength] = useState(NaN);
  const spring = springOf(of.cat);
  const read = length > 0 ? tried(() => bySpring(length, spring)) : null;
  return (
    <div className="mt-2">
      <QuantityField
        label="Spring, from loop to loop"
        q="height"
        min={0.01}
        max={2}
        width="w-20"
        value={length}
        onCommit={setLength}
      />
      <p className="label">
        Without load it is {say(spring.free_m, 'height', units)} long here: put your own figures in
        by the mark beside the result.
      </p>
      <Result
        of={of}
        {...rest}
        read={read}
        from={SPRING}
        detail={`spring ${say(length, 'height', units)} long`}
      />
    </div>
  );
}

function ByNote({ of, place, ...rest }: ReadingProps) {
  const units = useUnits();
  const { mass_kg_per_m, break_N } = wireOf(of.wire, of.cat);
  const [bay, setBay] = useState(() => bayLength(of, place));
  const [hertz, setHertz] = useState(NaN);
  const range = [
    noteOf(60, bay, mass_kg_per_m),
    noteOf(0.8 * break_N, bay, mass_kg_per_m),
  ] as const;
  const read = hertz > 0 ? tried(() => byNote(hertz, bay, mass_kg_per_m)) : null;
  return (
    <div className="mt-2">
      <p className="max-w-[44rem]">
        Hold the telephone to the post or the wire, pluck the strand at mid-bay, and let it sing. It
        lies between {say(range[0], 'hertz', units)} and {say(range[1], 'hertz', units)}.
      </p>
      <div className="flex flex-wrap items-center gap-x-5 gap-y-2">
        <QuantityField
          label="Bay"
          q="tape"
          min={0.5}
          max={60}
          width="w-16"
          value={bay}
          onCommit={setBay}
        />
        <QuantityField
          label="Note"
          q="hertz"
          min={0.5}
          max={500}
          width="w-20"
          value={hertz}
          onCommit={setHertz}
        />
        <NoteFinder range_Hz={range} onNote={setHertz} />
      </div>
      <Result
        of={of}
        place={place}
        {...rest}
        read={read}
        from={WAVE}
        detail={`${say(hertz, 'hertz', units)} in a bay of ${say(bay, 'tape', units)}`}
      />
    </div>
  );
}

function ByScale({ of, place, onKeep, ...rest }: ReadingProps) {
  const units = useUnits();
  const [force, setForce] = useState(NaN);
  /** What stands in the field came from the simulated scale. */
  const [sim, setSim] = useState(false);
  const read = force > 0 ? { tension_N: force, error_N: 0.02 * force } : null;
  const simulate = () => {
    const should = tensionsAt(of.strung, rest.celsius)[bayAt(of.bayed.posts, place)]!;
    setForce(Math.round(simulatedPull(should)));
    setSim(true);
  };
  return (
    <div className="mt-2">
      <div className="flex flex-wrap items-center gap-x-5 gap-y-2">
        <QuantityField
          label="The scale reads"
          q="force"
          min={1}
          max={20_000}
          width="w-20"
          value={force}
          onCommit={(f) => {
            setForce(f);
            setSim(false);
          }}
        />
        <Button onClick={simulate}>Read the simulated scale</Button>
        {sim && <strong className="text-warn">simulated, and kept as such</strong>}
      </div>
      <p className="label">A crane scale hung into the strand, between two grips: stand aside.</p>
      <Result
        of={of}
        place={place}
        {...rest}
        onKeep={(r, detail) => onKeep(r, detail, sim ? deviceNote('scale', true) : '')}
        read={read}
        from={STATE}
        detail={`scale ${say(force, 'force', units)}`}
      />
    </div>
  );
}

interface ResultProps {
  readonly of: Strained;
  readonly place: number;
  readonly celsius: number;
  readonly read: Read | string | null;
  readonly from: Origin;
  /** What was read, in words. */
  readonly detail: string;
  readonly onKeep: ReadingProps['onKeep'];
}

/** What was read, at 15 degrees C, beside the plan. */
function Result({ of, place, celsius, read, from, detail, onKeep }: ResultProps) {
  const units = useUnits();
  if (read === null) return null;
  if (typeof read === 'string')
    return (
      <p role="alert" className="mt-2">
        {sentence(read)}
      </p>
    );
  const over = read.tension_N > wireOf(of.wire, of.cat).break_N;
  if (over)
    return (
      <p role="alert" className="mt-2">
        {say(read.tension_N, 'force', units)} is more than the wire holds: something was misread.
      </p>
    );
  const at15 = reduced(of.strung, read.tension_N, celsius);
  const expected = expectedAt(of, place);
  const share = at15 / expected - 1;
  const now = tensionsAt(of.strung, celsius)[bayAt(of.bayed.posts, place)]!;
  return (
    <div className="mt-2 max-w-[44rem]" data-check-result>
      <p className="text-lg">
        <strong>
          <Num value={read.tension_N} q="force" from={from} />
        </strong>{' '}
        ± <Num value={2 * read.error_N} q="force" />, which is{' '}
        <strong>
          <Num value={at15} q="force" from={STATE} />
        </strong>{' '}
        at {say(REFERENCE_C, 'temperature', units)}.
      </p>
      <p>
        The plan has <Num value={now} q="force" /> in this bay now,{' '}
        <Num value={expected} q="force" /> at {say(REFERENCE_C, 'temperature', units)}: it is{' '}
        <Num value={Math.abs(share)} q="percent" /> {share < 0 ? 'slacker' : 'tighter'}
        {Math.abs(share) < 0.1 ? ', as near as such a check tells' : ''}.
      </p>
      <Button strong onClick={() => onKeep(read, detail)}>
        Keep this check
      </Button>
    </div>
  );
}
