import { DataTable } from '../../ui/parts/DataTable.js';
import { ArrowDown, ArrowUp, Plus, Trash2 } from 'lucide-react';
import { figure } from '../../core/plan/catalogue.js';
import { unitOf } from '../../core/base/units.js';
import type { Duty, Line } from '../../core/plan/schema.js';
import { isBarbed, isPanel } from '../../core/wire/bottom.js';
import { Check, QuantityField, Select } from '../../ui/parts/controls.js';
import { useUnits } from '../../ui/parts/Num.js';
import { useCatalogue } from '../../session/catalogue.js';
import { addAbove, remove, setDuty, setHeight, setMake, swap } from './moves.js';
import { Button } from '../../ui/parts/Button.js';

/** Every strand from the top down, as it stands on the post; the typed twin of the bench. */
export function StrandTable({
  line,
  chosen,
  onChoose,
}: {
  line: Line;
  chosen: number | null;
  onChoose: (i: number | null) => void;
}) {
  const cat = useCatalogue();
  const units = useUnits();
  const rows = line.strands.map((strand, i) => ({ strand, i })).reverse();
  const tick = (i: number, label: string, on: boolean, act: (on: boolean) => void, off = false) => (
    <Check
      label={`${label} of strand ${i + 1}`}
      hideLabel
      checked={on}
      disabled={off}
      onChange={act}
    />
  );
  return (
    <div>
      <DataTable
        label={`Strands of ${line.name}`}
        className="legs"
        rows={rows}
        keyOf={({ i }) => i}
        rowProps={({ i }) => ({
          className: i === chosen ? 'bg-chosen' : '',
          onFocusCapture: () => onChoose(i),
        })}
        columns={[
          {
            name: `height, ${unitOf('height', units)}`,
            cell: ({ strand, i }) => (
              <QuantityField
                label={`Height of strand ${i + 1}`}
                hideLabel
                hideUnit
                q="height"
                at="lines/*/strands/*/height_m"
                value={strand.height_m}
                onCommit={(h) => onChoose(setHeight(line, i, h))}
              />
            ),
          },
          {
            name: 'duty',
            cell: ({ strand, i }) => (
              <Select<Duty>
                label={`Duty of strand ${i + 1}`}
                hideLabel
                value={strand.duty}
                options={[
                  ['live', 'live'],
                  ['earth', 'earth'],
                  ['cold', 'cold'],
                ]}
                onChange={(duty) => setDuty(line, i, duty, cat)}
              />
            ),
          },
          {
            name: 'made of',
            cell: ({ strand, i }) => (
              <>
                {' '}
                <Select
                  label={`Wire of strand ${i + 1}`}
                  hideLabel
                  value={strand.wire}
                  options={Object.entries(cat.wires).map(([k, w]) => [k, w.name] as const)}
                  onChange={(wire) => setMake(line, i, { wire }, cat, 'wire of a strand')}
                />
                {strand.kept && <span className="label ml-1">kept</span>}
              </>
            ),
          },
          {
            name: 'insulated',
            cell: ({ strand, i }) =>
              tick(i, 'Insulators', strand.insulated, (insulated) =>
                setMake(line, i, { insulated }, cat, 'insulators'),
              ),
          },
          {
            name: 'bracket',
            cell: ({ strand, i }) =>
              tick(
                i,
                'Offset bracket',
                strand.offset_m !== undefined,
                (on) =>
                  setMake(
                    line,
                    i,
                    { offset_m: on ? figure(cat, 'strands.offset') : undefined },
                    cat,
                    'bracket of a strand',
                  ),
                isBarbed(strand, cat) || isPanel(strand, cat),
              ),
          },
          {
            name: 'cut-out',
            cell: ({ strand, i }) =>
              tick(
                i,
                'Cut-out',
                strand.switched ?? false,
                (on) => setMake(line, i, { switched: on }, cat, 'cut-out of a strand'),
                i > 0 || strand.duty !== 'live',
              ),
          },
          {
            name: 'order and take away',
            quiet: true,
            className: 'whitespace-nowrap',
            cell: ({ i }) => (
              <>
                {' '}
                <Button
                  className="!px-1"
                  disabled={i === line.strands.length - 1}
                  aria-label={`Let strand ${i + 1} change places with the one above`}
                  onClick={() => onChoose(swap(line, i, true))}
                >
                  <ArrowUp size={14} aria-hidden />
                </Button>
                <Button
                  className="!px-1"
                  disabled={i === 0}
                  aria-label={`Let strand ${i + 1} change places with the one below`}
                  onClick={() => onChoose(swap(line, i, false))}
                >
                  <ArrowDown size={14} aria-hidden />
                </Button>
                <Button
                  className="ml-1 !px-1"
                  aria-label={`A strand above strand ${i + 1}`}
                  onClick={() => onChoose(addAbove(line, i))}
                >
                  <Plus size={14} aria-hidden />
                </Button>
                <Button
                  className="!px-1"
                  aria-label={`Take strand ${i + 1} away`}
                  onClick={() => remove(line, i)}
                >
                  <Trash2 size={14} aria-hidden />
                </Button>
              </>
            ),
          },
        ]}
      />
      {line.strands.length === 0 && (
        <Button className="mt-2" onClick={() => onChoose(addAbove(line, -1))}>
          <Plus size={14} aria-hidden /> First strand
        </Button>
      )}
    </div>
  );
}
