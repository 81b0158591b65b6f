import { THING_NAMES, moveThing } from '../../core/edit/landEdits.js';
import { SHAPE_OF } from '../../core/land/things.js';
import type { Thing } from '../../core/plan/schema.js';
import { Caution, PlaceFields, QuantityField, Select, Check } from '../../ui/parts/controls.js';
import { useCatalogue } from '../../session/catalogue.js';
import { commit, useSession } from '../../session/session.js';
import { takeTool } from './actions.js';
import { useSketch } from './sketch.js';
import { Button } from '../../ui/parts/Button.js';

/** A thing on the land in typed fields: only those that its kind is there for. */
export function LandThingFields({ id }: { id: string }) {
  const thing = useSession((s) => s.plan.things![id]!);
  const cat = useCatalogue();
  const set = (words: string, change: (t: Thing) => void) =>
    commit(`${words} of ${thing.name}`, (d) => change(d.things![id]!));
  const check = (key: 'barbed' | 'earthed', label: string) => (
    <Check
      label={label}
      checked={thing[key] ?? false}
      onChange={(on) => set(label, (t) => void (t[key] = on))}
    />
  );
  const width = WIDTH[thing.kind];
  const first = thing.points[0]!;
  return (
    <>
      <p className="label">
        {THING_NAMES[thing.kind]}: {WHY[thing.kind]}
      </p>
      {width && (
        <QuantityField
          label={width}
          q="tape"
          at="things/*/width_m"
          value={thing.width_m ?? 0}
          onCommit={(m) => set('width', (t) => void (t.width_m = m))}
        />
      )}
      {thing.kind === 'overhead' && (
        <>
          <QuantityField
            label="Voltage"
            q="kilovolt"
            at="things/*/volts_kV"
            value={thing.volts_kV ?? 0}
            onCommit={(kV) => set('voltage', (t) => void (t.volts_kV = kV))}
          />
          <QuantityField
            label="Lowest wire over ground"
            q="tape"
            at="things/*/height_m"
            value={thing.height_m ?? 0}
            onCommit={(m) => set('height', (t) => void (t.height_m = m))}
          />
          {(thing.volts_kV === undefined || thing.height_m === undefined) && (
            <p className="text-warn">
              Until both are given the widest distance is asked for, and only aside.
            </p>
          )}
          <Caution>
            Ask the owner of the line for its voltage and height; never measure it yourself.
          </Caution>
        </>
      )}
      {thing.kind === 'soil' && (
        <Select
          label="Soil"
          value={thing.soil ?? ''}
          options={Object.entries(cat.soils).map(([k, s]) => [k, s.name] as const)}
          onChange={(soil) => set('soil', (t) => void (t.soil = soil))}
        />
      )}
      {thing.kind === 'oldFence' && check('barbed', 'barbed wire (else netting)')}
      {thing.kind === 'building' && check('earthed', 'has a supply earth of its own')}
      {thing.points.length === 1 ? (
        <PlaceFields
          at={first}
          onMove={(e, n) =>
            commit(`moved ${thing.name}`, (d) =>
              moveThing(d, id, { e: e - first.e, n: n - first.n }),
            )
          }
        />
      ) : (
        <p className="label">{thing.points.length} points; drag them, or the whole by its rim.</p>
      )}
      {SHAPE_OF[thing.kind] !== 'point' && (
        <Button
          className="self-start"
          onClick={() => {
            takeTool(thing.kind);
            useSketch.setState({ thing: id });
          }}
        >
          Draw on
        </Button>
      )}
    </>
  );
}

const WIDTH: Partial<Record<Thing['kind'], string>> = {
  burn: 'From bank to bank',
  publicWay: 'Width',
  tree: 'Crown, across',
  obstacle: 'Across, where drawn as a point or a way',
};

/** What each kind matters to. */
const WHY: Record<Thing['kind'], string> = {
  property: 'lines outside it are found.',
  water: 'paddocks with stock want one; the walk to it is measured.',
  mains: 'a mains unit stands near one, its earth 10 m off or more.',
  building: 'no posts in it; a fence earth keeps away from its earth.',
  overhead: 'distance in air by its voltage, and crossings at a right angle.',
  publicWay: 'signs along it, a gate where a live line crosses.',
  burn: 'no posts in it; a post at each bank, a flood gate between.',
  oldFence: 'sleeves where live strands cross it, distance beside it.',
  obstacle: 'no posts in it.',
  tree: 'no posts in its roots; branches over the wire.',
  soil: 'pull-out of posts and resistance of rods within it.',
};
