/** Checks of tension in the field: what a tool read, put at 15 degrees, beside the plan and last year, kept as a record. */
import { useState } from 'react';
import { figure } from '../../core/plan/catalogue.js';
import { TOOLS, type Tool } from '../../core/wire/checks.js';
import { reduced } from '../../core/wire/strung.js';
import { keepHere, keptHere } from '../../session/here.js';
import { happened } from '../../session/records.js';
import { tell } from '../../session/session.js';
import { AlongField } from '../../ui/parts/AlongField.js';
import { QuantityField, Select } from '../../ui/parts/controls.js';
import { expectedAt, Reading } from './CheckReading.js';
import { PastChecks } from './PastChecks.js';
import { strandsOf, type Strained } from './strained.js';

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
        onKeep={(read, detail, note = '') => {
          const at15_N = reduced(strung, read.tension_N, celsius);
          happened('tension', {
            who,
            note,
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
          });
          setRound(round + 1);
          tell(`Kept: strand ${strand}`);
        }}
      />
      <PastChecks of={of} near_m={3 * figure(cat, 'wire.clearOfBend') * of.row.bay_m} />
    </>
  );
}
