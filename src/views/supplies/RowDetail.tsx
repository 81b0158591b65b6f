/** An opened row of the list: what it goes into, its places, what is changed by hand, what lies in the shed. */
import { say, unitOf } from '../../core/base/units.js';
import type { Supply } from '../../core/report/schema.js';
import type { BasketRow } from '../../core/supplies/basket.js';
import { changeRow } from '../../core/supplies/bookEdits.js';
import { commit, useSession } from '../../session/session.js';
import { Button } from '../../ui/parts/Button.js';
import { WordsField } from '../../ui/parts/bookFields.js';
import { Check, QuantityField } from '../../ui/parts/controls.js';
import { Num, useUnits } from '../../ui/parts/Num.js';
import { PROPERTY } from './origins.js';
import { countShed } from './supplied.js';

export function RowDetail({ supply: s, row }: { supply: Supply; row: BasketRow }) {
  const units = useUnits();
  // What is set by hand shows at once; what comes of it follows.
  const own = useSession((x) => x.plan.supplyRows?.[s.id]);
  const quantity = own?.quantity ?? s.counted;
  const isLength = s.unit === 'm';
  const q = isLength ? 'length' : 'count';
  const unit = isLength ? unitOf('length', units) : s.unit;
  const change = (words: string, by: Parameters<typeof changeRow>[2]) =>
    commit(`${s.name}: ${words}`, (d) => changeRow(d, s.id, by));
  return (
    <div className="max-w-[60rem] font-normal no-underline" data-detail={s.id}>
      <div className="flex flex-wrap items-end gap-x-6 gap-y-2">
        <QuantityField
          label="Quantity"
          q={q}
          min={0}
          max={1e6}
          value={quantity}
          onCommit={(quantity) => change('by hand', { quantity })}
        />
        <span className="label self-center">
          counted {say(s.counted, q, units)} {isLength ? '' : unit}
        </span>
        {own?.quantity !== undefined && (
          <Button onClick={() => change('as counted', { quantity: null })}>As counted</Button>
        )}
        <Check
          label="leave it out"
          checked={own?.out ?? false}
          onChange={(out) => change(out ? 'left out' : 'in the list', { out })}
        />
        <WordsField
          label="Note"
          value={own?.note ?? ''}
          onCommit={(note) => change('note', { note })}
        />
      </div>
      <div className="mt-2 flex flex-wrap items-end gap-x-6 gap-y-2">
        <QuantityField
          label="In the shed"
          q={q}
          min={0}
          max={1e6}
          value={row.shed}
          onCommit={(is) => countShed(s.id, row.shed, is)}
        />
        {row.onOrder > 0 && (
          <span className="label self-center">on order {say(row.onOrder, q, units)}</span>
        )}
        {row.built > 0 && (
          <span className="label self-center">built in {say(row.built, q, units)}</span>
        )}
        <span className="self-center">
          to buy <strong>{say(row.buy, q, units)}</strong> {isLength ? '' : unit}
        </span>
      </div>
      <Uses supply={s} />
      <Places supply={s} />
    </div>
  );
}

/** What it goes into, and for whom. */
function Uses({ supply: s }: { supply: Supply }) {
  const units = useUnits();
  const { lines, energisers } = useSession((x) => x.plan);
  const byLength = s.unit === 'coil' || s.unit === 'm';
  const amount = (n: number) => (byLength ? say(n, 'length', units) : say(Math.round(n * 10) / 10, 'count', units)); // prettier-ignore
  const owner = (id: string) =>
    id === PROPERTY ? 'the property' : (lines[id]?.name ?? energisers[id]?.name ?? id);
  const uses = Object.entries(s.uses ?? {})
    .filter(([, n]) => n > 0)
    .sort((a, b) => b[1] - a[1]);
  const owners = Object.entries(s.lines);
  return (
    <div className="mt-2 flex flex-wrap gap-x-10 gap-y-2">
      {uses.length > 0 && (
        <dl aria-label={`What ${s.name} goes into`} className="grid grid-cols-[auto_auto] gap-x-3">
          {uses.map(([use, n]) => (
            <div key={use} className="contents">
              <dt className="label">{use}</dt>
              <dd className="figure text-right">{amount(n)}</dd>
            </div>
          ))}
        </dl>
      )}
      {owners.length > 0 && (
        <details>
          <summary className="cursor-pointer py-1">
            for {owners.length} {owners.length === 1 ? 'line or unit' : 'lines and units'}
          </summary>
          <ul>
            {owners.map(([id, n]) => (
              <li key={id}>
                <bdi>{owner(id)}</bdi> <span className="figure">{amount(n)}</span>
              </li>
            ))}
          </ul>
        </details>
      )}
    </div>
  );
}

/** For which places of which lines an item is. */
function Places({ supply: s }: { supply: Supply }) {
  const lines = useSession((x) => x.plan.lines);
  const { places } = s;
  if (!places) return null;
  const n = Object.values(places).reduce((sum, at) => sum + at.length, 0);
  // Mix and gravel are bought for several holes at once: a place has a part of a bag.
  const q =
    s.unit === 'm' ? 'tape' : s.unit === 't' ? 'tonne' : s.unit === 'bag' ? 'bags' : 'count';
  return (
    <details>
      <summary className="cursor-pointer py-1">
        at {n} {n === 1 ? 'place' : 'places'}
      </summary>
      <ul>
        {Object.entries(places).map(([line, at]) => (
          <li key={line}>
            <bdi>{lines[line]?.name ?? line}</bdi>{' '}
            {at.map(([along, quantity], k) => (
              <span key={along}>
                {k > 0 && ', '}
                <Num value={along} q="length" />: <Num value={quantity} q={q} />
              </span>
            ))}
          </li>
        ))}
      </ul>
    </details>
  );
}
