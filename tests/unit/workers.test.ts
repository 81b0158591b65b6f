/** Workers that do not load, die over what they were asked, or say why they cannot start: always told, started once more by themselves. */
import * as Comlink from 'comlink';
import { afterEach, beforeEach, expect, it, vi } from 'vitest';
import { askKept, keptWorker, startWorker, WorkerDied } from '../../src/session/workers.js';

type How = 'well' | 'no file' | 'no part' | 'dies';

/** A worker of the test's own: a channel to what it does, and the words of its program. */
class Fake extends EventTarget {
  static made: Fake[] = [];
  static next: How[] = [];
  onerror: ((event: { message: string }) => void) | null = null;
  onmessageerror = null;
  ended = false;
  private readonly port: MessagePort;
  constructor(_url: URL, { name }: { name: string }) {
    super();
    Fake.made.push(this);
    const { port1, port2 } = new MessageChannel();
    this.port = port1;
    const how = Fake.next.shift() ?? 'well';
    port1.onmessage = ({ data }) => this.dispatchEvent(new MessageEvent('message', { data }));
    const api = {
      role: () => name,
      never: () => (how === 'dies' ? (this.onerror!({ message: 'out of memory' }), new Promise(() => undefined)) : 'here'), // prettier-ignore
    };
    if (how === 'no file') setTimeout(() => this.onerror!({ message: '' }));
    else if (how === 'no part') port2.postMessage({ ready: false, why: 'a part is gone' });
    else {
      Comlink.expose(api, port2 as unknown as Comlink.Endpoint);
      port2.postMessage({ ready: true });
    }
  }
  postMessage(data: unknown, transfer: Transferable[] = []) {
    this.port.postMessage(data, transfer);
  }
  terminate() {
    this.ended = true;
    this.port.close();
  }
}

interface Api {
  role(): string;
  never(): string;
}

beforeEach(() => {
  Fake.made = [];
  Fake.next = [];
  vi.stubGlobal('Worker', Fake);
});
afterEach(() => {
  for (const f of Fake.made) f.terminate();
  vi.unstubAllGlobals();
});
const asked = keptWorker as unknown as (role: string) => () => ReturnType<typeof startWorker>;
const api = (running: { api: unknown }) => running.api as Comlink.Remote<Api>;

it('answers by the role it was started for, one worker for all who ask', async () => {
  const worker = asked('place');
  expect(await askKept(worker, (r) => api(r).role())).toBe('place');
  await Promise.all([1, 2, 3].map(() => askKept(worker, (r) => api(r).role())));
  expect(Fake.made).toHaveLength(1);
});

it.each([
  ['no file', /could not be loaded/],
  ['no part', /a part is gone/],
] as const)('with %s it is started once more, and then it is said; the next question tries again', async (how, words) => {
  const worker = asked('questions');
  Fake.next = [how];
  expect(await askKept(worker, (r) => api(r).role())).toBe('questions');
  expect(Fake.made).toHaveLength(2);
  expect(Fake.made[0]!.ended).toBe(true);

  const other = asked('questions');
  Fake.next = [how, how];
  const failed = askKept(other, (r) => api(r).role());
  await expect(failed).rejects.toThrow(words);
  await expect(failed).rejects.toBeInstanceOf(WorkerDied);
  expect(await askKept(other, (r) => api(r).role())).toBe('questions');
}); // prettier-ignore

it('who waits for one that dies is told, and the question goes to a new one once', async () => {
  const worker = asked('questions');
  Fake.next = ['dies', 'well'];
  expect(await askKept(worker, (r) => api(r).never())).toBe('here');
  Fake.next = ['dies', 'dies'];
  const other = asked('questions');
  await expect(askKept(other, (r) => api(r).never())).rejects.toThrow('out of memory');
});

it('what a question throws is its own fault: it is not asked again', async () => {
  const worker = asked('begin');
  let times = 0;
  await expect(askKept(worker, () => (times++, Promise.reject(new RangeError('no such unit'))))).rejects.toThrow('no such unit'); // prettier-ignore
  expect(times).toBe(1);
});

it('one that is stopped gives no answer more', async () => {
  const running = await startWorker('place');
  running.stop();
  expect(Fake.made[0]!.ended).toBe(true);
});
