/** What a tab does while the server is away: how often it asks, how it hears of the rest, what a form is told. */
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { sentence } from '../../src/core/base/words.js';
import { followMoves } from '../../src/session/live.js';
import { useReach } from '../../src/session/reach.js';
import { again, newsSince } from '../../src/session/server.js';
import { ask, postJson, Refusal } from '../../src/ui/parts/ask.js';

beforeEach(() => {
  useReach.setState({ away: null, asOf: null, tight: null });
});
afterEach(() => {
  vi.useRealTimers();
  vi.unstubAllGlobals();
});

/** Answers every request alike, or not at all. */
const server = (status: number | null, body: unknown = {}) => {
  const fetch = vi.fn(async () => {
    if (status === null) throw new TypeError('network');
    return new Response(status === 204 ? null : typeof body === 'string' ? body : JSON.stringify(body), { status }); // prettier-ignore
  });
  vi.stubGlobal('fetch', fetch);
  return fetch;
};

describe('a server that is away', () => {
  const browser = new EventTarget();
  beforeEach(() => {
    vi.useFakeTimers();
    vi.stubGlobal('addEventListener', browser.addEventListener.bind(browser));
    vi.stubGlobal('removeEventListener', browser.removeEventListener.bind(browser));
  });

  it('is asked ever less often, at once when the network is back, and closely again once it has answered', async () => {
    const away = server(null);
    const answered = again(() => newsSince(3));
    await vi.advanceTimersByTimeAsync(8_000);
    const soon = away.mock.calls.length;
    expect(soon).toBeGreaterThanOrEqual(5);
    await vi.advanceTimersByTimeAsync(3_600_000);
    // A phone at the fence for an hour: every 15 s, not every 1.5 s.
    expect(away.mock.calls.length - soon).toBeLessThan(260);
    expect(away.mock.calls.length - soon).toBeGreaterThan(230);
    const there = server(200, { changes: [], more: false });
    browser.dispatchEvent(new Event('online'));
    await vi.advanceTimersByTimeAsync(0);
    expect(await answered).toEqual({ changes: [], more: false });
    expect(there).toHaveBeenCalledTimes(1);

    const gone = server(503);
    void again(() => newsSince(3));
    await vi.advanceTimersByTimeAsync(4_600);
    expect(gone.mock.calls.length).toBe(4);
    server(200, { changes: [], more: false });
    await vi.advanceTimersByTimeAsync(2_000);
  });
});

describe('the line on which others are heard', () => {
  class Line extends EventTarget {
    static made: Line[] = [];
    static readonly CLOSED = 2;
    readyState = 0;
    constructor(readonly url: string) {
      super();
      Line.made.push(this);
    }
    close() {
      this.readyState = Line.CLOSED;
    }
    fails(state: number) {
      this.readyState = state;
      this.dispatchEvent(new Event('error'));
    }
  }
  const page = Object.assign(new EventTarget(), { visibilityState: 'visible' });
  const fetch = vi.fn();
  const take = vi.fn();
  beforeEach(() => {
    vi.useFakeTimers();
    Line.made = [];
    page.visibilityState = 'visible';
    fetch.mockClear();
    take.mockClear();
    vi.stubGlobal('EventSource', Line);
    vi.stubGlobal('document', page);
    vi.stubGlobal('addEventListener', vi.fn());
    vi.stubGlobal('removeEventListener', vi.fn());
    followMoves('p1', take, fetch);
  });

  it('hands on what was saved, and asks where that is too much to be told or the line was cut', () => {
    const [line] = Line.made;
    expect(line!.url).toBe('/api/properties/p1/live');
    line!.dispatchEvent(new MessageEvent('changes', { data: '{"changes":[],"more":false}' }));
    expect(take).toHaveBeenCalledWith({ changes: [], more: false });
    expect(fetch).not.toHaveBeenCalled();
    line!.dispatchEvent(new MessageEvent('moved', { data: 'plan 12' }));
    expect(fetch).toHaveBeenCalledTimes(1);
    // Cut: the browser tries again by itself, and what was missed meanwhile is asked for.
    line!.fails(0);
    expect(fetch).toHaveBeenCalledTimes(2);
    expect(useReach.getState().away).not.toBeNull();
    vi.advanceTimersByTime(60_000);
    expect(Line.made).toHaveLength(1);
    line!.dispatchEvent(new Event('open'));
    expect([fetch.mock.calls.length, useReach.getState().away]).toEqual([3, null]);
  });

  it('refused, it is tried again after 15 s, and not for a property that was left meanwhile', () => {
    Line.made[0]!.fails(Line.CLOSED);
    vi.advanceTimersByTime(14_900);
    expect(Line.made).toHaveLength(1);
    vi.advanceTimersByTime(200);
    expect(Line.made).toHaveLength(2);
    Line.made[1]!.fails(Line.CLOSED);
    followMoves('p2', take, fetch);
    vi.advanceTimersByTime(60_000);
    expect(Line.made.map((l) => l.url.split('/')[3])).toEqual(['p1', 'p1', 'p2']);
  });

  it('is there only while the tab is looked at', () => {
    const [line] = Line.made;
    page.visibilityState = 'hidden';
    page.dispatchEvent(new Event('visibilitychange'));
    expect(line!.readyState).toBe(Line.CLOSED);
    page.visibilityState = 'visible';
    page.dispatchEvent(new Event('visibilitychange'));
    page.dispatchEvent(new Event('visibilitychange'));
    expect(Line.made).toHaveLength(2);
  });
});

describe('what a form is told', () => {
  const refusal = (of: Promise<unknown>) => of.then(() => null, (e: unknown) => e as Refusal); // prettier-ignore

  it('is the reason and the place of a refusal, in words that can stand beside the field', async () => {
    server(422, { error: '/name: is there already', place: '/name', reason: 'is there already' });
    const refused = await refusal(postJson('/api/people', { name: 'Mara' }));
    expect(refused).toBeInstanceOf(Refusal);
    expect(refused).toMatchObject({ place: '/name', reason: 'is there already', message: '/name: is there already' }); // prettier-ignore
    expect(sentence(refused!.reason)).toBe('Is there already.');
  });

  it('is plain where a proxy answers, or nobody does', async () => {
    server(502, '<html>Bad gateway</html>');
    expect(await refusal(ask('/api/people'))).toMatchObject({ reason: 'the server answered 502', place: '' }); // prettier-ignore
    server(200, '<html>Sign in to the hotel</html>');
    expect(await refusal(ask('/api/people'))).toMatchObject({ reason: 'the server answered 200' });
    server(null);
    expect(await refusal(ask('/api/people'))).toMatchObject({ reason: 'the server does not answer; nothing was changed' }); // prettier-ignore
  });

  it('asks without a body, sends one as JSON, and takes an empty answer', async () => {
    const fetch = server(204);
    expect(await ask('/api/people/x', 'DELETE')).toBeUndefined();
    expect(fetch).toHaveBeenLastCalledWith('/api/people/x', { method: 'DELETE', headers: { 'content-type': 'application/json' }, body: '{}' }); // prettier-ignore
    server(200, [1]);
    expect(await ask('/api/people')).toEqual([1]);
  });
});
