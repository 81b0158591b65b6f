import { DataTable, type Column } from '../../ui/parts/DataTable.js';
import type { Leg } from '../../core/report/schema.js';
import { ArrowLeft, Trash2 } from 'lucide-react';
import { unitOf } from '../../core/base/units.js';
import { deflections } from '../../core/plan/geometry.js';
import { moveVertex } from '../../core/edit/edits.js';
import type { Line, Vertex } from '../../core/plan/schema.js';
import { PlaceFields, QuantityField, Select, Check, NameField } from '../../ui/parts/controls.js';
import { MEASURED, Num, useUnits, type Origin } from '../../ui/parts/Num.js';
import { useCatalogue } from '../../session/catalogue.js';
import { commit, useSession } from '../../session/session.js';
import { chooseLine, look, useView } from '../../session/view.js';
import { removeChosen } from './actions.js';
import { LineTools } from './LineTools.js';
import { goOn } from './sketch.js';
import { Straighten } from './Straighten.js';
import { Button } from '../../ui/parts/Button.js';

/** The chosen line: names, lengths, every leg and vertex as a typed table. */
export function LineCard({ id }: { id: string }) {
  const line = useSession((s) => s.plan.lines[id]!);
  const report = useSession((s) => s.report?.lines[id]);
  const cat = useCatalogue();
  const set = (words: string, change: (l: Line) => void) =>
    commit(`${words} of ${line.name}`, (d) => change(d.lines[id]!));
  return (
    <div>
      <div className="flex items-center gap-1">
        <Button className="!px-1.5" aria-label="Back to all lines" onClick={() => chooseLine(null)}>
          <ArrowLeft size={15} aria-hidden />
        </Button>
        <NameField
          name={line.name}
          label="Name of the line"
          onCommit={(name) => set('name', (l) => void (l.name = name))}
        />
      </div>
      {report && (
        <dl className="my-2 grid grid-cols-[1fr_auto] gap-x-3">
          <dt className="label">over ground</dt>
          <dd className="text-right">
            <Num
              value={report.ground_m}
              q="tape"
              from={{ ...MEASURED, formula: 'sum of sqrt(ds² + dz²)', title: 'Length over ground' }}
            />
          </dd>
          <dt className="label">in plan</dt>
          <dd className="text-right">
            <Num value={report.plan_m} q="tape" from={MEASURED} />
          </dd>
          <dt className="label">posts</dt>
          <dd className="text-right">
            <Num
              value={report.posts.length}
              q="count"
              from={{
                kind: 'formula',
                title: line.placed ? 'Posts as placed by the ground' : 'Posts at equal bays',
                formula:
                  'bays = ceil(length over ground ÷ longest bay), between ends, corners, bends and gates',
                inputs: [
                  {
                    name: 'Even grade, large stock',
                    path: 'defaults.posts.evenLarge.value',
                    quantity: 'length',
                  },
                  {
                    name: 'Undulating, large stock',
                    path: 'defaults.posts.unevenLarge.value',
                    quantity: 'length',
                  },
                  {
                    name: 'Even grade, small stock',
                    path: 'defaults.posts.evenSmall.value',
                    quantity: 'length',
                  },
                  {
                    name: 'Undulating, small stock',
                    path: 'defaults.posts.unevenSmall.value',
                    quantity: 'length',
                  },
                ],
              }}
            />
          </dd>
        </dl>
      )}
      <Check
        label="boundary of the property"
        checked={line.boundary}
        onChange={(on) => set('boundary', (l) => void (l.boundary = on))}
      />
      <div className="flex flex-col gap-1 py-1">
        <Select
          label="Line posts"
          value={line.post}
          options={Object.entries(cat.posts)
            .filter(([, p]) => p.use === 'line')
            .map(([k, p]) => [k, p.name] as const)}
          onChange={(post) => set('posts', (l) => void (l.post = post))}
        />
        <span className="flex items-center gap-2">
          <QuantityField
            label="Longest bay"
            q="tape"
            at="lines/*/maxBay_m"
            value={line.maxBay_m ?? Math.max(...(report?.stretches.map((s) => s.maxBay_m) ?? [6]))}
            onCommit={(m) => set('longest bay', (l) => void (l.maxBay_m = m))}
            width="w-16"
          />
          {line.maxBay_m !== null && (
            <button
              className="label cursor-pointer underline"
              onClick={() => set('longest bay', (l) => void (l.maxBay_m = null))}
            >
              usual
            </button>
          )}
        </span>
      </div>
      <Vertices line={line} />
      <Straighten line={line} />
      <LineTools line={line} />
      <div className="mt-2 flex flex-wrap gap-1">
        <Button onClick={() => goOn(id)}>Draw on from its end</Button>
        <Button
          onClick={() => {
            look({ vertex: null, thing: null });
            removeChosen();
          }}
        >
          <Trash2 size={14} aria-hidden /> Line
        </Button>
      </div>
    </div>
  );
}

/** Every vertex with its kind, and the leg that follows it. */
function Vertices({ line }: { line: Line }) {
  const chosen = useView((v) => v.vertex);
  const units = useUnits();
  const report = useSession((s) => s.report?.lines[line.id]);
  const turns = deflections(line.vertices);
  const vertex = chosen === null ? undefined : line.vertices[chosen];
  const leg = (name: string, key: keyof Leg, from?: Origin): Column<Vertex> => ({
    name,
    n: true,
    ...(from ? { from } : {}),
    cell: (_, i) => {
      const own = report?.legs[i];
      const degrees = key === 'bearing_deg';
      return own && <Num value={own[key]} q={degrees ? 'degree' : 'tape'} bare={!degrees} />;
    },
  });
  return (
    <div data-vertices>
      <DataTable
        label="Legs of the line"
        rows={line.vertices}
        keyOf={(v) => v.id}
        chosen={(_, i) => i === chosen}
        scroll="max-h-[46vh]"
        className="legs mt-1 text-[0.857rem]"
        columns={[
          {
            name: unitOf('tape', units),
            cell: (v, i) => (
              <>
                <button
                  className="cursor-pointer underline-offset-2 hover:underline"
                  aria-pressed={i === chosen}
                  onClick={() => look({ vertex: i, thing: null })}
                  onFocus={() => look({ vertex: i, thing: null })}
                >
                  {i + 1} {v.kind}
                </button>
                {turns[i]! > 1 && <span className="label"> {Math.round(turns[i]!)}°</span>}
              </>
            ),
          },
          leg('plan', 'plan_m', MEASURED),
          leg('ground', 'ground_m'),
          leg('bearing', 'bearing_deg'),
          { ...leg('rise', 'rise_m'), className: '!pr-0', headClass: '!pr-0' },
        ]}
      />
      {vertex && chosen !== null && (
        <VertexFields key={vertex.id} line={line} vertex={vertex} index={chosen} />
      )}
    </div>
  );
}

function VertexFields({ line, vertex, index }: { line: Line; vertex: Vertex; index: number }) {
  const move = (e: number, n: number) =>
    commit(`moved a corner of ${line.name}`, (d) => moveVertex(d, line.id, index, { e, n }));
  return (
    <fieldset className="border-ink mt-2 border p-2">
      <legend className="label px-1">corner {index + 1}</legend>
      <div className="flex flex-col gap-1">
        <Select<Vertex['kind']>
          label="Kind"
          value={vertex.kind}
          options={[
            ['end', 'end: strained off'],
            ['corner', 'corner: strained off'],
            ['bend', 'bend: wire runs through'],
          ]}
          onChange={(kind) =>
            commit(
              `kind of a corner of ${line.name}`,
              (d) => void (d.lines[line.id]!.vertices[index]!.kind = kind),
            )
          }
        />
        <PlaceFields at={vertex} onMove={move} />
        <Button
          className="self-start"
          onClick={() => {
            look({ vertex: index, thing: null });
            removeChosen();
          }}
        >
          <Trash2 size={14} aria-hidden /> Corner
        </Button>
      </div>
    </fieldset>
  );
}
