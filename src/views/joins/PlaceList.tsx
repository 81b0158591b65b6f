import { Unplug } from 'lucide-react';
import { say } from '../../core/base/units.js';
import type { Fed } from '../../core/wiring/place.js';
import { useUnits } from '../../ui/parts/Num.js';
import { useRoving } from '../../ui/parts/roving.js';
import type { PlaceOn } from './fence.js';
import { FED, KINDS, worstFed } from './words.js';

interface Props {
  readonly all: readonly PlaceOn[];
  readonly chosen: PlaceOn;
  readonly fed: ReadonlyMap<string, Fed> | null;
  readonly onChoose: (place: PlaceOn) => void;
}

/** The places of a line from its start to its end. */
export function PlaceList({ all, chosen, fed, onChoose }: Props) {
  const units = useUnits();
  const roving = useRoving<HTMLDivElement>('button');
  return (
    <div
      {...roving}
      role="group"
      aria-label="Places"
      className="max-h-[11rem] overflow-y-auto @[40rem]:max-h-[26rem]"
    >
      {all.map((p) => {
        const worst = worstFed(p.place, fed);
        return (
          <button
            key={`${p.place.location} ${p.at_m}`}
            aria-current={p === chosen ? 'true' : undefined}
            className={`line-row block w-full cursor-pointer px-2 py-1 text-left ${p === chosen ? 'bg-chosen font-semibold' : 'hover:bg-hover'}`}
            onClick={() => onChoose(p)}
          >
            {say(p.at_m, 'length', units)}, {KINDS[p.place.kind]}
            <span className="label block">
              {p.place.ties.length} {p.place.ties.length === 1 ? 'tie' : 'ties'}
              {p.place.join ? ', set by hand' : ''}
              {worst && worst !== 'twice' && (
                <span className={worst === 'dead' ? 'text-stop font-semibold' : 'text-mend'}>
                  {' '}
                  <Unplug size={12} className="inline" aria-hidden /> {FED[worst]}
                </span>
              )}
            </span>
          </button>
        );
      })}
    </div>
  );
}
