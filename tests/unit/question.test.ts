/** Questions on their way: one answer for all who ask the same, by the plan that is shown, stopped when nobody waits. */
import { afterAll, beforeEach, expect, it, vi } from 'vitest';
import { FLAT, line, plan } from './scene.js';
import { workerHere } from './workerHere.js';

const one = plan([line('a', [[0, 0], [100, 0]])]); // prettier-ignore
const other = plan([line('b', [[0, 0], [100, 0]])]); // prettier-ignore

/** What the worker heard, in its order. */
let heard: string[] = [];
let tickets: number[] = [];
/** Answers what waits. */
let answer: (value: string) => void;

const api = {
  open: (given: { lines: object }, ground: object | null) =>
    void heard.push(`open ${Object.keys(given.lines).join()}${ground ? ' on its ground' : ''}`),
  ask(ticket: number, name: string, args: unknown[], told: (share: number) => void) {
    heard.push(`${name} ${String(args[0])}`);
    tickets.push(ticket);
    told(0.25);
    return new Promise((done) => (answer = done));
  },
  stop: (ticket: number) => void heard.push(`stop ${tickets.indexOf(ticket)}`),
};

async function tab() {
  vi.resetModules();
  vi.stubGlobal('Worker', workerHere(api));
  const { useSession } = await import('../../src/session/state.js');
  useSession.setState({ plan: one, ground: FLAT });
  const { shared } = await import('../../src/session/question.js');
  const ask = (key: string, told: (share: number) => void = () => undefined) =>
    shared(key, useSession.getState().plan, (q) => q.checks() as never, told);
  return { ask, useSession };
}
const hear = (what: string) => vi.waitFor(() => expect(heard).toContain(what));

beforeEach(() => {
  heard = [];
  tickets = [];
});
afterAll(() => {
  vi.unstubAllGlobals();
  vi.resetModules();
});

it('gives the plan once, and again when it has changed; its ground when that has', async () => {
  const { ask, useSession } = await tab();
  void ask('first');
  void ask('second');
  await vi.waitFor(() => expect(heard.filter((h) => h.startsWith('checks'))).toHaveLength(2));
  useSession.setState({ plan: other });
  void ask('third');
  await vi.waitFor(() => expect(heard.filter((h) => h.startsWith('checks'))).toHaveLength(3));
  expect(heard.filter((h) => h.startsWith('open'))).toEqual(['open a on its ground', 'open b']);
});

it('gives the plan ahead of the first question, with what that will rest on', async () => {
  await tab();
  const { prepareQuestions } = await import('../../src/session/question.js');
  prepareQuestions('networks');
  await hear('ahead networks');
  expect(heard).toEqual(['open a on its ground', 'ahead networks']);
});

it('asks once for all who ask the same of the same plan; all are told how far it is', async () => {
  const { ask, useSession } = await tab();
  const shares: string[] = [];
  const [first, second] = [ask('same', (s) => shares.push(`first ${s}`)), ask('same', (s) => shares.push(`second ${s}`))]; // prettier-ignore
  await vi.waitFor(() => expect(shares).toEqual(['first 0.25', 'second 0.25']));
  answer('yes');
  expect(await Promise.all([first.answer, second.answer])).toEqual(['yes', 'yes']);
  expect(heard.filter((h) => h.startsWith('checks'))).toHaveLength(1);
  // Of another plan it is another question, and what was answered is asked anew.
  useSession.setState({ plan: other });
  void ask('same');
  await vi.waitFor(() => expect(heard.filter((h) => h.startsWith('checks'))).toHaveLength(2));
});

it('is stopped once nobody waits for it, and not while anybody does', async () => {
  const { ask } = await tab();
  const [first, second] = [ask('long'), ask('long')];
  await vi.waitFor(() => expect(tickets).toHaveLength(1));
  first.leave();
  await new Promise((wake) => setTimeout(wake, 120));
  expect(heard).not.toContain('stop 0');
  second.leave();
  await hear('stop 0');
  // Whoever asks then is not given the answer of what was stopped.
  void ask('long');
  await vi.waitFor(() => expect(tickets).toHaveLength(2));
});

it('goes on for one who comes back at once', async () => {
  const { ask } = await tab();
  ask('tab').leave();
  const again = ask('tab');
  await vi.waitFor(() => expect(tickets).toHaveLength(1));
  await new Promise((wake) => setTimeout(wake, 120));
  answer('still');
  expect(await again.answer).toBe('still');
  expect(heard).not.toContain('stop 0');
});

it('that was left before the worker had begun is not asked at all', async () => {
  await tab();
  const never = vi.fn(() => Promise.resolve(null));
  const { question } = await import('../../src/session/question.js');
  const own = question(never);
  own.stop();
  expect(await own.answer).toBe(null);
  expect(never).not.toHaveBeenCalled();
});
