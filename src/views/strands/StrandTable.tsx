import { Plus, Trash2 } from 'lucide-react';
import { unitOf } from '../../core/base/units.js';
import type { Duty, Line, Strand } from '../../core/plan/schema.js';
import { QuantityField, Select } from '../../ui/parts/controls.js';
import { useUnits } from '../../ui/parts/Num.js';
import { useCatalogue } from '../../ui/session/catalogue.js';
import { commit } from '../../ui/session/session.js';

/** Every strand from the top down, as it stands on the post. */
export function StrandTable({ line }: { line: Line }) {
  const cat = useCatalogue();
  const units = useUnits();
  const change = (words: string, write: (strands: Strand[]) => void) =>
    commit(`${words} on ${line.name}`, (d) => {
      const strands = d.lines[line.id]!.strands;
      write(strands);
      strands.sort((a, b) => a.height_m - b.height_m);
    });
  const rows = line.strands.map((strand, i) => ({ strand, i })).reverse();
  const top = line.strands.at(-1)?.height_m ?? 0.6;
  const usual: Strand = line.strands.at(-1) ?? {
    height_m: 0,
    duty: 'live',
    wire: 'ht25',
    insulated: true,
  };
  return (
    <>
      <table className="sheet-table">
        <thead>
          <tr>
            <th>height, {unitOf('height', units)}</th>
            <th>duty</th>
            <th>wire</th>
            <th>insulated</th>
            <th>
              <span className="sr-only">take away</span>
            </th>
          </tr>
        </thead>
        <tbody>
          {rows.map(({ strand, i }) => {
            const below = line.strands[i - 1]?.height_m;
            const above = line.strands[i + 1]?.height_m;
            return (
              <tr key={i}>
                <td>
                  <QuantityField
                    label={`Height of strand ${i + 1}`}
                    hideLabel
                    hideUnit
                    q="height"
                    min={(below ?? 0.01) + 0.01}
                    max={above === undefined ? 3.5 : above - 0.01}
                    value={strand.height_m}
                    onCommit={(h) => change('height of a strand', (s) => void (s[i]!.height_m = h))}
                  />
                </td>
                <td>
                  <Select<Duty>
                    label={`Duty of strand ${i + 1}`}
                    hideLabel
                    value={strand.duty}
                    options={[
                      ['live', 'live'],
                      ['earth', 'earth'],
                      ['cold', 'cold'],
                    ]}
                    onChange={(duty) => change('duty of a strand', (s) => void (s[i]!.duty = duty))}
                  />
                </td>
                <td>
                  <Select
                    label={`Wire of strand ${i + 1}`}
                    hideLabel
                    value={strand.wire}
                    options={Object.entries(cat.wires).map(([k, w]) => [k, w.name] as const)}
                    onChange={(wire) => change('wire of a strand', (s) => void (s[i]!.wire = wire))}
                  />
                </td>
                <td>
                  <input
                    type="checkbox"
                    className="size-4"
                    aria-label={`Strand ${i + 1} insulated`}
                    checked={strand.insulated}
                    onChange={(event) =>
                      change('insulators', (s) => void (s[i]!.insulated = event.target.checked))
                    }
                  />
                </td>
                <td className="n">
                  <button
                    className="button !px-1.5"
                    aria-label={`Take strand ${i + 1} away`}
                    onClick={() => change('took a strand', (s) => void s.splice(i, 1))}
                  >
                    <Trash2 size={14} aria-hidden />
                  </button>
                </td>
              </tr>
            );
          })}
        </tbody>
      </table>
      <button
        className="button mt-2"
        disabled={line.strands.length >= 20 || top > 3.3}
        onClick={() =>
          change(
            'added a strand',
            (s) => void s.push({ ...usual, height_m: Math.round((top + 0.2) * 100) / 100 }),
          )
        }
      >
        <Plus size={14} aria-hidden /> Strand on top
      </button>
    </>
  );
}
