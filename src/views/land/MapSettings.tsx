import { useSession } from '../../session/session.js';
import { look, useViewOf } from '../../session/view.js';
import { QuantityField } from '../../ui/parts/controls.js';
import { Button } from '../../ui/parts/Button.js';

/** How the ground is shown: distance between contours, shade or slope. */
export function MapSettings() {
  const grid = useSession((s) => s.grid !== null);
  const { contours, tint } = useViewOf('contours', 'tint');
  if (!grid) return null;
  return (
    <details className="bg-panel/95 border-rule border px-2 py-1 text-[0.929rem]">
      <summary className="cursor-pointer">Ground</summary>
      <div className="mt-1 flex flex-col gap-1.5 pb-1">
        <QuantityField
          label="Contours every (0: as fits)"
          q="tape"
          min={0}
          max={500}
          value={contours}
          width="w-14"
          onCommit={(m) => look({ contours: m })}
        />
        <div role="group" aria-label="Below the map" className="inline-flex">
          {(['shade', 'slope'] as const).map((k) => (
            <Button
              key={k}
              className="-ml-px !rounded-none"
              aria-pressed={tint === k}
              onClick={() => look({ tint: k })}
            >
              {k === 'shade' ? 'Shade' : 'Slope'}
            </Button>
          ))}
        </div>
        {tint === 'slope' && <p className="label">Darker from 10, 20, 33 and 50 % on.</p>}
      </div>
    </details>
  );
}
