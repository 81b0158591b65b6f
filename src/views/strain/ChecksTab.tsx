/** Checks of tension in the field: what a tool read, put at 15 degrees, beside the plan and last year, kept as a record. */
import { useState } from 'react';
import { say } from '../../core/base/units.js';
import { figure } from '../../core/plan/catalogue.js';
import { byNote, byPull, bySpring, byTaps, TOOLS, type Read, type Taps, type Tool } from '../../core/wire/checks.js'; // prettier-ignore
import { noteOf } from '../../core/wire/pull.js';
import { spanAt } from '../../core/wire/run.js';
import { reduced, REFERENCE_C } from '../../core/wire/strung.js';
import { wireOf } from '../../core/wire/wires.js';
import { keepHere, keptHere } from '../../session/here.js';
import { record } from '../../session/records.js';
import { tell } from '../../session/session.js';
import { AlongField } from '../../ui/parts/AlongField.js';
import { Button } from '../../ui/parts/Button.js';
import { Check, QuantityField, Select } from '../../ui/parts/controls.js';
import { Num, useUnits } from '../../ui/parts/Num.js';
import { NoteFinder } from './NoteFinder.js';
import { PULL, SPRING, STATE, WAVE } from './origins.js';
import { PastChecks } from './PastChecks.js';
import { strandsOf, type Strained } from './strained.js';
import { TapTimer } from './TapTimer.js';
import { bayTensions } from './TensionLines.js';

const TOOL_WORDS: Readonly<Record<Tool, string>> = {
  taps: 'strike it and tap the returns',
  pull: 'pull it aside at mid-bay',
  spring: 'length of its spring',
  note: 'note of a bay',
  scale: 'scale in the wire',
};

export function ChecksTab({ of }: { of: Strained }) {
  const { line, report, wire, strung, climate, bayed, cat } = of;
  const strands = strandsOf(line, wire);
  const [strand, setStrand] = useState(strands.at(-1)!);
  const [at_m, setAt] = useState(of.row.at_m);
  const [celsius, setCelsius] = useState(climate.today_C);
  const [tool, setTool] = useState<Tool>(() => keptHere<Tool>('check-tool', 'taps'));
  const [who, setWho] = useState(() => keptHere('check-who', ''));
  const [round, setRound] = useState(0);
  const place = Math.min(bayed.run.to_m, Math.max(bayed.run.from_m, at_m));
  return (
    <>
      <div className="grid gap-x-6 gap-y-2 @[46rem]:grid-cols-2">
        <div className="flex flex-wrap items-end gap-x-5 gap-y-2">
          <Select
            label="Strand, from the ground"
            value={String(strand)}
            options={strands.map((n) => [String(n), `${n}`] as const)}
            onChange={(n) => setStrand(Number(n))}
          />
          <AlongField label="Place" line={line} report={report} value={place} onCommit={setAt} />
          <QuantityField
            label="The wire is at"
            q="temperature"
            min={-40}
            max={60}
            width="w-16"
            value={celsius}
            onCommit={setCelsius}
          />
          <span className="inline-flex items-center gap-1.5">
            <label className="label" htmlFor="check-who">
              Who
            </label>
            <input
              id="check-who"
              className="field w-28"
              maxLength={80}
              value={who}
              onChange={(e) => {
                setWho(e.target.value);
                keepHere('check-who', e.target.value);
              }}
            />
          </span>
        </div>
        <div>
          <Select
            label="Read with"
            width="max-w-[16rem]"
            value={tool}
            options={TOOLS.map((t) => [t, TOOL_WORDS[t]] as const)}
            onChange={(t) => {
              setTool(t);
              keepHere('check-tool', t);
            }}
          />
        </div>
      </div>
      <Reading
        key={`${tool} ${round}`}
        tool={tool}
        of={of}
        place={place}
        celsius={celsius}
        onKeep={(read, detail) => {
          const at15_N = reduced(strung, read.tension_N, celsius);
          void record({
            kind: 'tension',
            record: {
              id: crypto.randomUUID(),
              time: new Date().toISOString(),
              who,
              note: '',
              line: line.id,
              at_m: place,
              spot: null,
              strand,
              wire,
              tool,
              detail: detail.slice(0, 200),
              celsius,
              tension_N: read.tension_N,
              error_N: read.error_N,
              at15_N,
              expected15_N: expectedAt(of, place),
            } as { id: string },
          });
          setRound(round + 1);
          tell(`Kept: strand ${strand}`);
        }}
      />
      <PastChecks of={of} near_m={3 * figure(cat, 'wire.clearOfBend') * of.row.bay_m} />
    </>
  );
}

/** Tension that the plan has in the bay at a place, at 15 degrees C, N. */
const expectedAt = ({ strung, bayed }: Strained, at_m: number): number => {
  const k = bayed.posts.findIndex((p) => p.s_m > at_m + 1e-6);
  return strung.tension15_N[k < 1 ? strung.tension15_N.length - 1 : k - 1]!;
};

interface ReadingProps {
  readonly tool: Tool;
  readonly of: Strained;
  readonly place: number;
  readonly celsius: number;
  readonly onKeep: (read: Read, detail: string) => void;
}

/** What one tool asks for, and what that says. */
function Reading(props: ReadingProps) {
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

/** Length of the bay at a place, m. */
function bayAt({ bayed, strung }: Strained, place: number): number {
  const k = bayed.posts.findIndex((p) => p.s_m > place + 1e-6);
  return strung.shape.chord_m[k < 1 ? spanAt(strung.shape, Infinity) : k - 1]!;
}

function ByTaps({ of, onKeep, ...rest }: ReadingProps) {
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
        onKeep={(r) =>
          onKeep(
            r,
            `one return ${say(taps!.return_s, 'seconds', units)} over ${say(over_m, 'length', units)}`,
          )
        }
      />{' '}
      {/* prettier-ignore */}
    </div>
  );
}

function ByPull({ of, place, onKeep, ...rest }: ReadingProps) {
  const units = useUnits();
  const { EA_N } = of.strung.steel;
  const length = of.strung.shape.length_m;
  const [bay, setBay] = useState(() => bayAt(of, place));
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
        )}{' '}
        {/* prettier-ignore */}
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
        onKeep={(r) =>
          onKeep(
            r,
            `${say(force, 'force', units)} moved it ${say(moved, 'height', units)} in a bay of ${say(bay, 'tape', units)}, ${slides ? `sliding from ${say(from, 'length', units)}` : 'held fast'}`,
          )
        }
      />{' '}
      {/* prettier-ignore */}
    </div>
  );
}

function BySpring({ of, onKeep, ...rest }: ReadingProps) {
  const units = useUnits();
  const { cat } = of;
  const [length, setLength] = useState(NaN);
  const spring = { free_m: figure(cat, 'spring.free'), rate_N_per_m: figure(cat, 'spring.rate'), travel_m: figure(cat, 'spring.travel') }; // prettier-ignore
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
        onKeep={(r) => onKeep(r, `spring ${say(length, 'height', units)} long`)}
      />{' '}
      {/* prettier-ignore */}
    </div>
  );
}

function ByNote({ of, place, onKeep, ...rest }: ReadingProps) {
  const units = useUnits();
  const { mass_kg_per_m, break_N } = wireOf(of.wire, of.cat);
  const [bay, setBay] = useState(() => bayAt(of, place));
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
        onKeep={(r) =>
          onKeep(r, `${say(hertz, 'hertz', units)} in a bay of ${say(bay, 'tape', units)}`)
        }
      />{' '}
      {/* prettier-ignore */}
    </div>
  );
}

function ByScale({ of, onKeep, ...rest }: ReadingProps) {
  const units = useUnits();
  const [force, setForce] = useState(NaN);
  const read = force > 0 ? { tension_N: force, error_N: 0.02 * force } : null;
  return (
    <div className="mt-2">
      <QuantityField
        label="The scale reads"
        q="force"
        min={1}
        max={20_000}
        width="w-20"
        value={force}
        onCommit={setForce}
      />
      <p className="label">A crane scale hung into the strand, between two grips: stand aside.</p>
      <Result
        of={of}
        {...rest}
        read={read}
        from={STATE}
        onKeep={(r) => onKeep(r, `scale ${say(force, 'force', units)}`)}
      />{' '}
      {/* prettier-ignore */}
    </div>
  );
}

interface ResultProps {
  readonly of: Strained;
  readonly place: number;
  readonly celsius: number;
  readonly read: Read | string | null;
  readonly from: typeof STATE;
  readonly onKeep: (read: Read) => void;
}

/** What was read, at 15 degrees C, beside the plan. */
function Result({ of, place, celsius, read, from, onKeep }: ResultProps) {
  const units = useUnits();
  if (read === null) return null;
  if (typeof read === 'string')
    return (
      <p role="alert" className="mt-2">
        {read.charAt(0).toUpperCase() + read.slice(1)}.
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
  const now = bayTensions(
    of.bayed,
    of.strung,
    { cold_C: celsius, today_C: celsius, hot_C: celsius },
    'today',
  );
  const bay = now.find((b) => place >= b.from_m && place <= b.to_m) ?? now[0]!;
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
        The plan has <Num value={bay.slides_N} q="force" /> in this bay now,{' '}
        <Num value={expected} q="force" /> at {say(REFERENCE_C, 'temperature', units)}: it is{' '}
        <Num value={Math.abs(share)} q="percent" /> {share < 0 ? 'slacker' : 'tighter'}
        {Math.abs(share) < 0.1 ? ', as near as such a check tells' : ''}.
      </p>
      <Button strong onClick={() => onKeep(read)}>
        Keep this check
      </Button>
    </div>
  );
}
