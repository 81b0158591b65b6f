/** A reading at a place that is not on the round: a line, and how far along it. */
import { useState } from 'react';
import { planLength } from '../../core/plan/geometry.js';
import { useSession } from '../../session/session.js';
import { Button } from '../../ui/parts/Button.js';
import { QuantityField, Select } from '../../ui/parts/controls.js';

/** A line and a distance along it; null until a line is chosen. */
export function PlaceOnLine({ line, at_m, onChange, none }: { line: string; at_m: number; onChange: (line: string, at_m: number) => void; none?: string }) {
  const lines = useSession((s) => s.plan.lines);
  const own = lines[line];
  return (
    <span className="flex flex-wrap items-center gap-2">
      <Select
        label="Line"
        value={own ? line : ''}
        width="max-w-[14rem]"
        options={[...(own && none === undefined ? [] : [['', none ?? 'choose …'] as const]), ...Object.values(lines).map((l) => [l.id, l.name] as const)]}
        onChange={(id) => onChange(id, 0)}
      />
      {own && (
        <QuantityField label="from its start" q="along" min={0} max={planLength(own)} width="w-20" value={at_m} onCommit={(s) => onChange(line, s)} />
      )}
    </span>
  );
} // prettier-ignore

export function Elsewhere({ onChoose }: { onChoose: (line: string, at_m: number) => void }) {
  const [{ line, at_m }, set] = useState({ line: '', at_m: 0 });
  return (
    <details className="mt-3">
      <summary className="cursor-pointer">Elsewhere on the fence …</summary>
      <div className="flex flex-wrap items-center gap-2 py-2">
        <PlaceOnLine line={line} at_m={at_m} onChange={(l, s) => set({ line: l, at_m: s })} />
        {line !== '' && <Button onClick={() => onChoose(line, at_m)}>Read here</Button>}
      </div>
    </details>
  );
}
