import { PenLine, Upload } from 'lucide-react';
import { useId } from 'react';
import { Button } from '../../ui/parts/Button.js';
import { takeTool } from './actions.js';

/** What to do on a map with nothing on it. */
export function EmptyMap({ take }: { take: (files: readonly File[]) => void }) {
  const field = useId();
  return (
    <div className="bg-panel border-ink absolute top-1/2 left-1/2 w-80 max-w-[86%] -translate-x-1/2 -translate-y-1/2 border p-4">
      <h2 className="heading">Nothing is drawn yet</h2>
      <p className="mt-1">
        Draw the first fence from point to point, or drop a walk (GPX, KML …) or a file of heights
        on this map.
      </p>
      <div className="mt-3 flex flex-wrap gap-2">
        <Button strong onClick={() => takeTool('draw')}>
          <PenLine size={14} aria-hidden /> Draw (D)
        </Button>
        <span className="button relative">
          <Upload size={14} aria-hidden />
          <label htmlFor={field}>Choose files</label>
          <input
            id={field}
            type="file"
            multiple
            className="absolute inset-0 cursor-pointer opacity-0"
            onChange={(e) => take([...(e.target.files ?? [])])}
          />
        </span>
      </div>
    </div>
  );
}
