import { QuantityField } from '../../ui/parts/controls.js';
import { Num } from '../../ui/parts/Num.js';

/** What straight runs at some nearness make of a walk. */
export interface Straightened {
  readonly vertices: number;
  readonly corners: number;
  /** Ends that are to be braced; with `cost`, in the property's currency, where they are known. */
  readonly ends?: number;
  readonly cost?: string;
  readonly furthest_m: number;
}

/** How near straight runs keep to a walk: begun at the walk's own noise, with what it leads to beside it. */
export function Tolerance(p: {
  value: number;
  measured: number;
  walked: number;
  made: Straightened;
  onChange: (m: number) => void;
}) {
  const { made } = p;
  return (
    <>
      <label className="flex flex-col">
        <span className="label">Straight runs that keep within</span>
        <input
          type="range"
          min={0}
          max={20}
          step={0.1}
          value={p.value}
          onChange={(e) => p.onChange(Number(e.target.value))}
        />
      </label>
      <span className="flex flex-wrap items-center gap-2">
        <QuantityField
          label="keep within"
          q="tape"
          min={0}
          max={50}
          value={p.value}
          onCommit={p.onChange}
          width="w-16"
        />
        {p.value === p.measured ? (
          <span className="label">as the walk's own noise says</span>
        ) : (
          <button
            type="button"
            className="label cursor-pointer underline"
            onClick={() => p.onChange(p.measured)}
          >
            as its noise says: <Num value={p.measured} q="tape" />
          </button>
        )}
      </span>
      <p role="status">
        {p.walked} walked points become {made.vertices} vertices, {made.corners} of them corners
        that want ends of their own
        {made.ends !== undefined && <>; {made.ends} ends are braced</>}
        {made.cost !== undefined && <>, and the fence costs {made.cost}</>}. The furthest walked
        point lies{' '}
        <Num
          value={made.furthest_m}
          q="tape"
          from={{
            kind: 'measured',
            title: 'Furthest walked point',
            source:
              'Distance of each walked point from straight runs laid through them by total least squares',
          }}
        />{' '}
        off.
      </p>
    </>
  );
}
