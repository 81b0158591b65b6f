/** What all the ties of the property take, by kind of connector, and what becomes of them with the years. */
import { moneyText } from '../../core/base/locale.js';
import { recordOf } from '../../core/plan/catalogue.js';
import { USUAL_CONNECTOR, type ConnectorId } from '../../core/power/ties.js';
import { priceInUse } from '../../core/supplies/takeoff.js';
import { CONNECTORS } from '../../core/wiring/ageing.js';
import { itemsAt, takenAt } from '../../core/wiring/place.js';
import { Asked } from '../../ui/parts/Asked.js';
import { useCatalogue } from '../../session/catalogue.js';
import { usePower } from '../../session/power.js';
import { commit, useSession } from '../../session/session.js';
import { useView } from '../../session/view.js';
import { Part } from '../../ui/parts/controls.js';
import { Button } from '../../ui/parts/Button.js';
import { DataTable } from '../../ui/parts/DataTable.js';
import { Num } from '../../ui/parts/Num.js';
import type { Wired } from './fence.js';
import { AGED, COST, HOURS } from './origins.js';

export function Connectors({ fences }: { fences: readonly Wired[] }) {
  const cat = useCatalogue();
  const chosen = useSession((s) => s.plan.connectors) ?? USUAL_CONNECTOR;
  const season = useView((v) => v.season);
  const lines = useSession((s) => s.plan.lines);
  const first = useSession((s) => Object.keys(s.plan.energisers)[0]);
  const currency = useSession((s) => s.plan.currency);
  const answer = usePower(first === undefined ? null : `aged ${season}`, (api) => api.aged(season));
  const { value: aged, waiting } = answer;
  const places = fences.flatMap((f) => f.places);
  const rows = CONNECTORS.map((kind) => {
    let [n, wire_m, cost] = [0, 0, 0];
    for (const p of places) {
      // Those that were set by hand keep their kind.
      const ties = p.join ? p.ties : p.ties.map((t) => ({ ...t, kind }));
      const made = { ties, arriving: p.arriving };
      const { connectors, jumper_m } = takenAt(made);
      n += Object.values(connectors).reduce((a, b) => a + b, 0);
      wire_m += jumper_m;
      for (const [item, count] of itemsAt(made, cat)) cost += count * priceInUse(item, cat);
    }
    const hours = (n * recordOf(cat.connectors, kind).minutes) / 60;
    return { kind, n, wire_m, cost, hours, aged: aged?.find((a) => a.kind === kind) ?? null };
  });
  const choose = (kind: ConnectorId) =>
    commit(`ties: ${recordOf(cat.connectors, kind).name.toLowerCase()}`, (d) => {
      d.connectors = kind;
    });
  return (
    <Part title="Tied with what, on the whole property">
      {answer.fault !== null && <Asked of={answer} doing="Ageing the ties" />}
      <DataTable
        label="Kinds of connector"
        rows={rows}
        keyOf={(r) => r.kind}
        chosen={(r) => r.kind === chosen}
        columns={[
          { name: 'kind', head: true, cell: (r) => recordOf(cat.connectors, r.kind).name },
          { name: 'connectors', n: true, cell: (r) => <Num value={r.n} q="count" bare /> },
          { name: 'wire', n: true, cell: (r) => <Num value={r.wire_m} q="length" /> },
          { name: 'cost', n: true, from: COST, cell: (r) => moneyText(r.cost, currency) },
          { name: 'hours', n: true, from: HOURS, cell: (r) => <Num value={r.hours} q="hours" /> },
          {
            name: 'far end, aged',
            n: true,
            from: AGED,
            cell: (r) =>
              r.aged ? (
                <>
                  <Num value={r.aged.left} q="percent" />{' '}
                  <span className="label">{r.aged.line && lines[r.aged.line]?.name}</span>
                </>
              ) : waiting ? (
                <span className="label">being aged …</span>
              ) : (
                ''
              ),
          },
          {
            name: 'take',
            quiet: true,
            n: true,
            cell: (r) =>
              r.kind === chosen ? (
                <span className="label">taken</span>
              ) : (
                <Button
                  className="small"
                  aria-label={`Take: ${recordOf(cat.connectors, r.kind).name}`}
                  onClick={() => choose(r.kind)}
                >
                  take
                </Button>
              ),
          },
        ]}
      />
      <p className="label mt-1">
        Jumpers are of the fence’s own wire: copper on galvanised steel corrodes. Clamps and taps
        carry no tension; a ratchet in the line conducts and needs no jumper round it.
      </p>
    </Part>
  );
}
