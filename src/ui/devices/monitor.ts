/** A simulated monitor: reports by itself, through the door that a real one on the fence would use. */
import { create } from 'zustand';

/** How often it reports, ms: the door takes one in 10 s for long. */
export const EVERY_MS = 15_000;

interface Running {
  /** Of monitors that run in this tab, what came of the last report. */
  readonly said: Readonly<Record<string, string>>;
}
export const useRunning = create<Running>(() => ({ said: {} }));
const timers = new Map<string, ReturnType<typeof setInterval>>();

const say = (id: string, words: string | null): void =>
  useRunning.setState(({ said }) => {
    const rest = { ...said };
    delete rest[id];
    return { said: words === null ? rest : { ...rest, [id]: words } };
  });

/**
 * Begins to report, at once and then every quarter of a minute, until it is stopped or its token is not taken.
 * @param read what it shows now, V; null: nothing to show yet
 */
export function startMonitor(id: string, token: string, read: () => number | null): void {
  stopMonitor(id);
  const report = async () => {
    const value = read();
    if (value === null) return say(id, 'waits for the figures of the fence');
    try {
      const answer = await fetch('/api/monitor', {
        method: 'POST',
        headers: { authorization: `Bearer ${token}`, 'content-type': 'application/json' },
        body: JSON.stringify({ value: Math.round(value) }),
        signal: AbortSignal.timeout(EVERY_MS),
      });
      if (!timers.has(id)) return;
      if (answer.status === 401) stopMonitor(id);
      const { kept = false, error } = (await answer.json()) as { kept?: boolean; error?: string };
      if (answer.status === 401) return;
      say(id, answer.ok ? (kept ? 'reported, and in the log' : 'reported; nothing had moved') : (error ?? 'not taken')); // prettier-ignore
    } catch {
      if (timers.has(id)) say(id, 'the server does not answer');
    }
  };
  timers.set(id, setInterval(() => void report(), EVERY_MS));
  say(id, 'begins');
  void report();
} // prettier-ignore

export function stopMonitor(id: string): void {
  clearInterval(timers.get(id));
  timers.delete(id);
  say(id, null);
}
