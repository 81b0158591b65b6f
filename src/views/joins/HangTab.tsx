/** What the strands of a line hang on: by post, at its bends, at its ends. */
import { recordOf, type Catalogue } from '../../core/plan/catalogue.js';
import type { Line } from '../../core/plan/schema.js';
import type { LineReport } from '../../core/report/schema.js';
import { bendsOf, insulatorAt, unfit } from '../../core/strands/insulators.js';
import { useCatalogue } from '../../session/catalogue.js';
import { commit, useSession } from '../../session/session.js';
import { Part, Select } from '../../ui/parts/controls.js';
import { DataTable } from '../../ui/parts/DataTable.js';
import { Num } from '../../ui/parts/Num.js';
import { Where } from './Where.js';
import { BEARING, BEARS } from './origins.js';

/** A kind of place on a line at which strands hang on something. */
interface Spot {
  readonly spot: string;
  readonly words: string;
  /** Of the posts there; null: at an end. */
  readonly family: string | null;
}

export function HangTab({ line }: { line: Line }) {
  const cat = useCatalogue();
  const report = useSession((s) => s.report?.lines[line.id]);
  const wire = line.strands.find((s) => s.insulated && !s.offset_m)?.wire;
  if (!report || wire === undefined)
    return <p className="label">No strand of {line.name} is insulated.</p>;
  const bends = bendsOf(line, report.runs, report.strain);
  const most = Math.max(0, ...bends.map((b) => b.bearing_N));
  const kindAt = ({ spot, family }: Spot) => insulatorAt(line, spot, family, wire, cat, most);
  const set = (spot: string, id: string) =>
    commit(`insulators of ${line.name}`, (d) => {
      const own = d.lines[line.id]!;
      const next = { ...own.insulators };
      if (id === '') delete next[spot];
      else next[spot] = id;
      if (Object.keys(next).length > 0) own.insulators = next;
      else delete own.insulators;
    });
  return (
    <>
      <Part title={`What the strands of ${line.name} hang on`}>
        <DataTable
          label="Insulators"
          rows={spotsOf(report, bends.length > 0, cat)}
          keyOf={(s) => s.spot}
          columns={[
            { name: 'where', head: true, cell: (s) => s.words },
            {
              name: 'insulator',
              cell: (s) => (
                <Select
                  hideLabel
                  width="max-w-[16rem]"
                  label={`Insulator ${s.words}`}
                  value={line.insulators?.[s.spot] ?? ''}
                  options={[
                    ['', usualWords(line, s, wire, most, cat)],
                    ...Object.entries(cat.insulators)
                      .filter(([, k]) => (k.where === 'end') === (s.family === null))
                      .map(([id, k]) => [id, `${k.name}${unfit(id, s.family, wire, cat) ? ': does not fit' : ''}`] as const), // prettier-ignore
                  ]}
                  onChange={(id) => set(s.spot, id)}
                />
              ),
            },
            {
              name: 'bears',
              n: true,
              from: BEARS,
              cell: (s) => {
                const id = kindAt(s);
                return id ? <Num value={recordOf(cat.insulators, id).bearing_N} q="force" /> : '';
              },
            },
            {
              name: 'note',
              className: 'label',
              cell: (s) => {
                const id = kindAt(s);
                return id
                  ? recordOf(cat.insulators, id).why
                  : 'Nothing of the catalogue fits there.';
              },
            },
          ]}
        />
        <p className="label mt-1">
          Never staple a live wire to timber. At an end the tie goes round the long way, so that
          most of the insulator stands between wire and post; two turns round a reel.
        </p>
      </Part>
      {bends.length > 0 && (
        <Part title="At its bends">
          <DataTable
            label="Bends"
            rows={bends}
            keyOf={(b) => b.vertex}
            columns={[
              { name: 'place', head: true, cell: (b) => <Where line={line.id} at_m={b.at_m} /> },
              { name: 'turns', n: true, cell: (b) => <Num value={b.turn_deg} q="degree" /> },
              {
                name: 'wire runs on',
                cell: (b) => `the ${b.side} side of the post`,
              },
              {
                name: 'pull of a strand',
                n: true,
                from: BEARING,
                cell: (b) => <Num value={b.bearing_N} q="force" />,
              },
            ]}
          />
          <p className="label mt-1">
            Left and right are seen along the line from its start: there the wire is pulled against
            the post, not off it.
          </p>
        </Part>
      )}
    </>
  );
}

/** What fits where nothing was chosen. */
function usualWords(
  { insulators }: Line,
  { spot, family }: Spot,
  wire: string,
  most: number,
  cat: Catalogue,
): string {
  // prettier-ignore
  const { [spot]: own, ...rest } = insulators ?? {};
  const id = insulatorAt({ insulators: rest }, spot, family, wire, cat, most);
  const name = id ? recordOf(cat.insulators, id).name : 'nothing fits';
  return own === undefined ? name : `${name}, as fits`;
}

function spotsOf(report: LineReport, bends: boolean, cat: Catalogue): Spot[] {
  const family = (kind: string) => recordOf(cat.posts, kind).family;
  const of = (role: string) =>
    report.posts.filter((p) => p.role === role).map((p) => family(p.kind));
  const families = [...new Set([...of('line'), ...of('joint')])];
  return [
    ...families.map((f) => ({ spot: f, words: `at posts of ${f}`, family: f })),
    ...(bends ? [{ spot: 'bend', words: 'at bends', family: of('bend')[0] ?? families[0]! }] : []),
    { spot: 'end', words: 'at ends and corners', family: null },
  ];
}
