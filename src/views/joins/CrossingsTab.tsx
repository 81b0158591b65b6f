/** Where a line crosses an old wire or water, and spans that are taken down at times. */
import { Trash2 } from 'lucide-react';
import { useState } from 'react';
import { planLength } from '../../core/plan/geometry.js';
import type { Line } from '../../core/plan/schema.js';
import { inOrder, itemsOfCrossing, USUAL_WIDTH, type Crossing, type Joiner } from '../../core/wiring/crossings.js'; // prettier-ignore
import { useCatalogue } from '../../session/catalogue.js';
import { commit, useSession } from '../../session/session.js';
import { useView } from '../../session/view.js';
import { AlongField } from '../../ui/parts/AlongField.js';
import { Button } from '../../ui/parts/Button.js';
import { Caution, Part, QuantityField, Select } from '../../ui/parts/controls.js';
import { DataTable } from '../../ui/parts/DataTable.js';
import { Num } from '../../ui/parts/Num.js';
import { Where } from './Where.js';

const KINDS: Record<Crossing['kind'], string> = {
  sleeve: 'sleeves on an old wire',
  flood: 'flood gate on its own switch',
  closure: 'span that is taken down',
};
const JOINERS: Record<Joiner, string> = {
  wedge: 'wedge joiners',
  sleeve: 'crimp sleeves',
  clamp: 'line clamps',
  tap: 'tap crimps',
};

export function CrossingsTab({ line }: { line: Line }) {
  const cat = useCatalogue();
  const report = useSession((s) => s.report?.lines[line.id]);
  const cursor = useView((v) => v.cursor);
  const [kind, setKind] = useState<Crossing['kind']>('closure');
  const [at, setAt] = useState<number | null>(null);
  const total = planLength(line);
  const at_m = Math.min(at ?? cursor ?? Math.round(5 * total) / 10, total);
  const own = line.crossings ?? [];
  const set = (what: string, next: readonly Crossing[]) =>
    commit(`${what} on ${line.name}`, (d) => {
      const to = d.lines[line.id]!;
      if (next.length > 0) to.crossings = inOrder(next);
      else delete to.crossings;
    });
  const change = (k: number, more: Partial<Crossing>) =>
    set('crossing', own.map((c, i) => (i === k ? { ...c, ...more } : c))); // prettier-ignore
  const name = (item: string) => cat.prices[item]?.name.toLowerCase() ?? item;
  return (
    <Part title={`What ${line.name} crosses, and where it opens`}>
      {own.length > 0 && (
        <DataTable
          label="Crossings"
          rows={own.map((c, k) => ({ ...c, k }))}
          keyOf={(c) => String(c.k)}
          columns={[
            {
              name: 'place',
              head: true,
              className: '!text-ink !font-normal !text-[1rem]',
              cell: (c) => <Where line={line.id} at_m={c.at_m} />,
            },
            { name: 'what', cell: (c) => KINDS[c.kind] },
            {
              name: 'wide',
              n: true,
              cell: (c) =>
                c.kind !== 'sleeve' && (
                  <QuantityField
                    hideLabel
                    label="Width"
                    q="tape"
                    min={0.5}
                    max={60}
                    value={c.width_m ?? USUAL_WIDTH}
                    width="w-16"
                    onCommit={(width_m) => change(c.k, { width_m })}
                  />
                ),
            },
            {
              name: 'held by',
              cell: (c) =>
                c.kind === 'closure' && (
                  <Select
                    hideLabel
                    label="Joiners"
                    value={c.joiner ?? 'wedge'}
                    options={Object.entries(JOINERS) as [Joiner, string][]}
                    onChange={(joiner) => change(c.k, { joiner })}
                  />
                ),
            },
            {
              name: 'takes',
              className: 'label',
              cell: (c) =>
                itemsOfCrossing(line, c, cat)
                  .filter(([, n]) => n > 0)
                  .map(([item, n], i) => (
                    <span key={item}>
                      {i > 0 && ', '}
                      <Num value={n} q="count" bare /> × {name(item)}
                    </span>
                  )),
            },
            {
              name: 'take away',
              quiet: true,
              n: true,
              cell: (c) => (
                <Button
                  className="small"
                  aria-label={`Take away: ${KINDS[c.kind]}`}
                  onClick={() => set('crossing taken away', own.filter((_, i) => i !== c.k))} // prettier-ignore
                >
                  <Trash2 size={14} aria-hidden />
                </Button>
              ),
            },
          ]}
        />
      )}
      {own.length === 0 && <p className="label">It crosses nothing, and no span is taken down.</p>}
      {report && (
        <div className="mt-2 flex flex-wrap items-center gap-x-4 gap-y-2">
          <Select
            label="Put in"
            value={kind}
            options={Object.entries(KINDS) as [Crossing['kind'], string][]}
            onChange={setKind}
          />
          <AlongField label="at" line={line} report={report} value={at_m} onCommit={setAt} />
          <Button onClick={() => set(KINDS[kind], [...own, { at_m, kind }])}>Put in</Button>
        </div>
      )}
      <Caution>
        Never let go of a wire end: it springs. A span that is taken down is slacked off first, with
        the unit off; joiners that come off again are wedge joiners, one wire in each of two
        opposite channels.
      </Caution>
    </Part>
  );
}
