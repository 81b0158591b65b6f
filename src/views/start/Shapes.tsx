import { TEMPLATES } from '../../core/edit/templates.js';
import { Sketch } from './Sketch.js';

/** The ready shapes to begin with, each with a picture of itself. */
export function Shapes({ chosen, onChoose }: { chosen: string; onChoose: (id: string) => void }) {
  return (
    <div role="radiogroup" aria-label="Ready shapes" className="mt-1 grid grid-cols-3 gap-2">
      {Object.entries(TEMPLATES).map(([id, t]) => (
        <label
          key={id}
          className={`border-rule hover:border-ink flex cursor-pointer flex-col gap-1 rounded-[3px] border p-2 has-focus-visible:outline-2 ${
            chosen === id ? 'border-ink bg-chosen' : ''
          }`}
        >
          <input
            type="radio"
            name="shape"
            className="sr-only"
            checked={chosen === id}
            onChange={() => onChoose(id)}
          />
          <ShapePicture id={id} />
          <span className={chosen === id ? 'font-semibold' : ''}>{t.name}</span>
        </label>
      ))}
    </div>
  );
}

/** A template as it comes. */
export function ShapePicture({ id }: { id: string }) {
  const { lines, places } = TEMPLATES[id]!.make(TEMPLATES[id]!.area_m2);
  return (
    <Sketch
      lines={lines.map((l) => l.points.map(({ e, n }) => [e, n] as const))}
      gates={places.map((p) => [p.points[0]!.e, p.points[0]!.n] as const)}
    />
  );
}
