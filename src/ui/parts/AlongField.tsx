/** A place on a line, typed as one tapes it: over the ground from the post where its run begins. */
import { useMemo, useState } from 'react';
import type { Gate, Line } from '../../core/plan/schema.js';
import {
  placeAtTape,
  runAt,
  startWords,
  tapeAt,
  tapeStarts,
  whereWords,
} from '../../core/posts/whereabouts.js';
import type { LineReport } from '../../core/report/schema.js';
import { gAt } from '../../core/terrain/profile.js';
import { useSession } from '../../session/session.js';
import { QuantityField, Select } from './controls.js';
import { useUnits } from './Num.js';
import { useProfile } from './profile.js';

/** The gates of a line. */
export function useGates(line: Line): readonly Gate[] {
  const gates = useSession((s) => s.plan.gates);
  return useMemo(() => Object.values(gates).filter((g) => g.line === line.id), [gates, line.id]);
}

/** Places of a line in words: "118.4 m (post 23)". */
export function useWhere(line: Line, report: LineReport): (s: number) => string {
  const units = useUnits();
  const profile = useProfile(line);
  const gates = useGates(line);
  return (s) => whereWords(report, gates, profile, s, units);
}

interface AlongFieldProps {
  readonly label: string;
  readonly line: Line;
  readonly report: LineReport;
  /** Plan distance along the line, m. */
  readonly value: number;
  readonly onCommit: (s: number) => void;
  /** A gate that is being placed itself: one tapes to it from the run before it. */
  readonly gate?: Gate;
}

export function AlongField({ label, line, report, value, onCommit, gate }: AlongFieldProps) {
  const profile = useProfile(line);
  const gates = useGates(line).filter((g) => g.id !== gate?.id);
  const starts = tapeStarts(report, gates).filter(
    (s) => !gate || Math.abs(s.s_m - (gate.at_m + gate.width_m / 2)) > 0.05,
  );
  const own = runAt(report, gate ? gate.at_m - gate.width_m / 2 : value);
  const [chosen, setChosen] = useState<number | null>(null);
  const start = starts[Math.min(chosen ?? own, starts.length - 1)] ?? {
    s_m: 0,
    post: 1,
    gate: null,
  };
  const tape =
    gate || chosen !== null
      ? gAt(profile, value) - gAt(profile, start.s_m)
      : tapeAt(report, profile, value);
  return (
    <span className="flex flex-wrap items-end gap-2">
      <QuantityField
        label={label}
        q="tape"
        min={0}
        max={gAt(profile, Infinity) - gAt(profile, start.s_m)}
        value={tape}
        onCommit={(t) => onCommit(placeAtTape(profile, start.s_m, t))}
      />
      {starts.length > 1 && (
        <Select
          label={`${label}: taped`}
          value={String(starts.indexOf(start))}
          options={starts.map((s, i) => [String(i), startWords(s)] as const)}
          onChange={(k) => setChosen(Number(k))}
        />
      )}
    </span>
  );
}
