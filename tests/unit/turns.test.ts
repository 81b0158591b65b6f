/** Questions in turns: one after another, told how far they are, stopped between two steps. */
import { describe, expect, it } from 'vitest';
import { atOnce, within, type Steps } from '../../src/core/base/steps.js';
import { createTurns } from '../../src/workers/turns.js';

/** So many steps, each longer than a turn. */
function* long(steps: number, done: number[] = []): Steps<string> {
  for (let k = 1; k <= steps; k++) {
    for (const until = performance.now() + 35; performance.now() < until;);
    done.push(k);
    yield k / steps;
  }
  return 'done';
}

describe('work in steps', () => {
  it('is the same at once, and says its share of greater work', () => {
    expect(atOnce(long(2))).toBe('done');
    const part = within(long(2), 0.5, 0.9);
    const shares: number[] = [];
    for (let step = part.next(); !step.done; step = part.next()) shares.push(step.value);
    expect(shares).toEqual([0.7, 0.9]);
  });
});

describe('questions in turns', () => {
  it('are answered one after another, whatever comes meanwhile, and say how far they are', async () => {
    const inTurn = createTurns();
    const order: string[] = [];
    const shares: number[] = [];
    const first = inTurn({ stopped: false }, () => long(3), (share) => shares.push(share)).then((a) => order.push(`first ${a}`)); // prettier-ignore
    const second = inTurn({ stopped: false }, () => 'at once').then((a) => order.push(`second ${a}`)); // prettier-ignore
    await Promise.all([first, second]);
    expect(order).toEqual(['first done', 'second at once']);
    expect(shares).toEqual([1 / 3, 2 / 3, 1]);
  });

  it('stop for breath once in a turn, and not at every step', async () => {
    function* quick(): Steps<string> {
      for (let k = 1; k <= 2000; k++) yield k / 2000;
      return 'done';
    }
    let breaths = 0;
    expect(await createTurns()({ stopped: false }, quick, () => breaths++)).toBe('done');
    expect(breaths).toBeLessThan(200);
  });

  it('are left at the next step once nobody waits, and the next is answered at once', async () => {
    const inTurn = createTurns();
    const [own, done] = [{ stopped: false }, [] as number[]];
    const old = inTurn(own, () => long(20, done), () => (own.stopped = true)); // prettier-ignore
    const next = inTurn({ stopped: false }, () => 'newer');
    expect(await next).toBe('newer');
    expect(await old).toBe(null);
    expect(done).toEqual([1]);
    // One that had not begun is not begun.
    const never = inTurn({ stopped: true }, () => expect.fail('was begun'));
    expect(await never).toBe(null);
  });

  it('a stop that comes as a message is heard between two turns', async () => {
    const inTurn = createTurns();
    const [own, done] = [{ stopped: false }, [] as number[]];
    const { port1, port2 } = new MessageChannel();
    port1.onmessage = () => (own.stopped = true);
    const old = inTurn(own, () => long(40, done));
    port2.postMessage('stop');
    expect(await old).toBe(null);
    port1.close();
    expect(done.length).toBeLessThan(10);
  });

  it('one that falls over falls alone', async () => {
    const inTurn = createTurns();
    const falls = inTurn({ stopped: false }, () => {
      throw new Error('no network');
    });
    const next = inTurn({ stopped: false }, () => 'here');
    await expect(falls).rejects.toThrow('no network');
    expect(await next).toBe('here');
  });
});
