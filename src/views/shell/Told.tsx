/** What was done just now, with the way back beside it. */
import { X } from 'lucide-react';
import { useEffect } from 'react';
import { tell, undo, useSession } from '../../session/session.js';
import { Button } from '../../ui/parts/Button.js';

/** How long it stays, ms: long enough to read it and to reach the button with a glove on. */
const STAYS = 9000;

export function Told() {
  const told = useSession((s) => s.told);
  useEffect(() => {
    if (!told) return;
    const timer = setTimeout(() => tell(null), STAYS);
    return () => clearTimeout(timer);
  }, [told]);
  return (
    <div role="status" className="told no-print">
      {told && (
        <p className="border-ink bg-ink text-sheet flex items-center gap-3 border px-3 py-1.5 shadow-lg">
          <bdi>{told}</bdi>
          <Button onClick={undo}>Undo</Button>
          <button
            className="grid size-8 cursor-pointer place-items-center"
            aria-label="Put this away"
            onClick={() => tell(null)}
          >
            <X size={15} aria-hidden />
          </button>
        </p>
      )}
    </div>
  );
}
