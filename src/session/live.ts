/** Hears at once what others have saved: while the tab is looked at, since a browser has few lines to a server. */
import type { News } from '../formats/change.js';
import { followKind } from './kept.js';
import { reached } from './reach.js';

/** After how long a line that was refused is tried again, ms. */
const AGAIN_MS = 15_000;

let line: EventSource | null = null;
let again: ReturnType<typeof setTimeout> | undefined;
let stop: (() => void) | null = null;

/**
 * @param take called with changes that were saved
 * @param fetch called when the plan has moved by more than can be told, and when the line is cut, refused or there again
 */
export function followMoves(property: string, take: (news: News) => void, fetch: () => void): void {
  stop?.();
  const close = () => {
    clearTimeout(again);
    line?.close();
    line = null;
  };
  const open = () => {
    if (document.visibilityState !== 'visible') return close();
    if (line) return;
    line = new EventSource(`/api/properties/${property}/live`);
    line.addEventListener('open', () => {
      reached(true);
      fetch();
    });
    line.addEventListener('error', () => {
      reached(false);
      // What was saved since is not told by itself: it is asked for, also where a line can never be had.
      fetch();
      if (line?.readyState !== EventSource.CLOSED) return;
      // Refused and not merely cut: the browser does not try again by itself.
      close();
      again = setTimeout(open, AGAIN_MS);
    });
    line.addEventListener('changes', ({ data }: MessageEvent<string>) => take(JSON.parse(data) as News)); // prettier-ignore
    line.addEventListener('moved', ({ data }: MessageEvent<string>) =>
      data.startsWith('plan ') ? fetch() : followKind(data),
    );
  };
  open();
  document.addEventListener('visibilitychange', open);
  addEventListener('online', fetch);
  stop = () => {
    close();
    document.removeEventListener('visibilitychange', open);
    removeEventListener('online', fetch);
  };
}
