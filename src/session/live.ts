/** Hears at once what others have saved: while the tab is looked at, since a browser has few lines to a server. */
import { followKind } from './kept.js';
import { reached } from './reach.js';

/** After how long a line that was refused is tried again, ms. */
const AGAIN_MS = 15_000;

let line: EventSource | null = null;
let stop: (() => void) | null = null;

/** @param planMoved called when the plan has moved, and when the line is there again after it was not */
export function followMoves(property: string, planMoved: () => void): void {
  stop?.();
  const close = () => {
    line?.close();
    line = null;
  };
  const open = () => {
    if (document.visibilityState !== 'visible') return close();
    if (line) return;
    line = new EventSource(`/api/properties/${property}/live`);
    line.addEventListener('open', () => {
      reached(true);
      planMoved();
    });
    line.addEventListener('error', () => {
      reached(false);
      if (line?.readyState !== EventSource.CLOSED) return;
      // Refused and not merely cut: the browser does not try again by itself.
      close();
      setTimeout(open, AGAIN_MS);
    });
    line.addEventListener('moved', ({ data }: MessageEvent<string>) =>
      data === 'plan' ? planMoved() : followKind(data),
    );
  };
  open();
  document.addEventListener('visibilitychange', open);
  addEventListener('online', planMoved);
  stop = () => {
    close();
    document.removeEventListener('visibilitychange', open);
    removeEventListener('online', planMoved);
  };
}
