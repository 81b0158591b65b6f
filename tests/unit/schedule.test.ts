/**
 * Timetables of work. Checked by a judge of its own that knows nothing of how they are made; beside optimal answers of a
 * general MILP solver (tests/reference/cases/schedule.json); and the critical path by the definition, longest chain.
 */
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { endOf_h, slotFrom, steadyClock, turned, type Clock } from '../../src/core/build/clock.js';
import { criticalPath, inOrder, type Awaiting } from '../../src/core/build/network.js';
import { boundOf, schedule } from '../../src/core/build/schedule.js';
import { pushedLate, type Job, type Problem, type Timetable } from '../../src/core/build/serial.js';
import { seat } from '../../src/core/build/who.js';
import { runCase } from '../../src/server/calc.js';
import scheduled from '../reference/cases/schedule.json' with { type: 'json' };

/** All that is wrong with a timetable, by the rules alone. */
function wrongs({ clock, jobs, caps }: Problem, { start, chosen, finish }: Timetable): string[] {
  const out: string[] = [];
  const used = caps.map((c) => new Float64Array(c.length));
  jobs.forEach((j, k) => {
    const begins = clock.at_h[start[k]!] ?? Infinity;
    if (j.slots > 0 && begins < j.from_h - 1e-9) out.push(`${k} before its time`);
    for (const a of j.after) {
      const last = start[a.job]! + jobs[a.job]!.slots;
      if (start[k]! < last) out.push(`${k} before ${a.job}`);
      const ended = last === 0 ? clock.at_h[0]! : clock.at_h[last - 1]! + clock.slot_h;
      if (a.wait_h > 0 && j.slots > 0 && begins < ended + a.wait_h - 1e-6) out.push(`${k} does not wait for ${a.job}`); // prettier-ignore
    }
    if (j.oneOf.length > 0 && !j.oneOf.includes(chosen[k]!)) out.push(`${k} has nobody`);
    const needs = [...j.needs, ...(chosen[k]! >= 0 ? [[chosen[k]!, 1] as const] : [])];
    for (const [r, n] of needs)
      for (let s = start[k]!; s < start[k]! + j.slots; s++) used[r]![s]! += n;
    if (!j.aside && start[k]! + j.slots > finish) out.push(`${k} ends after the end`);
  });
  used.forEach((u, r) =>
    u.forEach((n, s) => n > caps[r]![s]! && out.push(`too much of ${r} in ${s}`)),
  );
  return out;
}

/** Days of 8 h from 8 to 16, every day. */
const dayClock = (days: number): Clock => ({
  slot_h: 1,
  at_h: Float64Array.from({ length: days * 8 }, (_, k) => 24 * Math.floor(k / 8) + 8 + (k % 8)),
});

const problems = fc
  .record({
    jobs: fc.array(
      fc.record({
        slots: fc.integer({ min: 0, max: 6 }),
        people: fc.integer({ min: 0, max: 3 }),
        backs: fc.array(fc.record({ back: fc.integer({ min: 1, max: 6 }), wait_h: fc.constantFrom(0, 0, 5, 24) }), { maxLength: 3 }), // prettier-ignore
        choice: fc.constantFrom('none', 'none', 'given', 'one'),
        from_h: fc.constantFrom(0, 0, 0, 30),
        first: fc.boolean(),
        aside: fc.constantFrom(false, false, false, true),
      }),
      { minLength: 1, maxLength: 18 },
    ),
    crew: fc.integer({ min: 3, max: 5 }),
    steady: fc.boolean(),
  })
  .map(({ jobs, crew, steady }): Problem => {
    const clock = steady ? steadyClock(1, 900) : dayClock(120);
    const slots = clock.at_h.length;
    return {
      clock,
      // The crew as a number, and two of it by name, one of whom is away in the first days.
      caps: [
        new Int16Array(slots).fill(crew),
        new Int16Array(slots).fill(1),
        Int16Array.from({ length: slots }, (_, s) => (s < 10 ? 0 : 1)),
      ],
      jobs: jobs.map((j, k): Job => ({
        slots: j.slots,
        from_h: j.from_h,
        first: j.first,
        after: j.backs
          .filter((b) => b.back <= k)
          .map((b) => ({ job: k - b.back, wait_h: b.wait_h })),
        needs: [
          ...(j.people > 0 ? [[0, j.people] as const] : []),
          ...(j.choice === 'given' ? [[2, 1] as const] : []),
        ],
        oneOf: j.choice === 'one' ? [1, 2] : [],
      })),
    };
  });

describe('a timetable', () => {
  it('keeps every wait, every time and every number, whatever is asked', () => {
    fc.assert(
      fc.property(problems, (p) => {
        const found = schedule(p, { tries: 12 })!;
        expect(wrongs(p, found)).toEqual([]);
        expect(found.finish).toBeGreaterThanOrEqual(found.bound);
      }),
      { numRuns: 300, seed: 4 },
    );
  });

  it('may slip by its floats, all of them at once, and end no later', () => {
    fc.assert(
      fc.property(problems, (p) => {
        const found = schedule(p, { tries: 8 })!;
        const late = pushedLate(p, found);
        if (!late) return;
        const own = {
          ...p,
          jobs: p.jobs.map((j) => ({ ...j, oneOf: [], after: j.aside ? [] : j.after })),
        };
        expect(wrongs(own, { start: late, chosen: found.chosen.map(() => -1), finish: found.finish })).toEqual([]); // prettier-ignore
      }),
      { numRuns: 150, seed: 5 },
    );
  });

  it('is the same for the same problem', () => {
    const p: Problem = { ...sample(), clock: steadyClock(1, 300) };
    expect(schedule(p)!.start).toEqual(schedule(p)!.start);
  });

  it('comes first what is asked to', () => {
    const p = sample();
    const asked = { ...p, jobs: p.jobs.map((j, k) => ({ ...j, first: k === 2 })) };
    expect(schedule(asked)!.start[2]).toBe(0);
    expect(wrongs(asked, schedule(asked)!)).toEqual([]);
  });

  it('is none when more are asked for than there are, or the clock ends', () => {
    const p = sample();
    expect(schedule({ ...p, caps: [new Int16Array(300).fill(1)] })).toBeNull();
    expect(schedule({ ...p, clock: steadyClock(1, 3), caps: [new Int16Array(3).fill(2)] })).toBeNull(); // prettier-ignore
  });

  it('is weighed by what it costs where that is said', () => {
    // One job late is dearer than a longer timetable.
    const p = sample();
    const cost = (t: Timetable) => t.start[0]! * 100 + t.finish;
    expect(schedule(p, { cost })!.start[0]).toBe(0);
  });
});

/** Three jobs of two people, a crew of two. */
function sample(): Problem {
  const job: Job = { slots: 2, after: [], needs: [[0, 2]], oneOf: [], from_h: 0, first: false };
  return { clock: steadyClock(1, 300), caps: [new Int16Array(300).fill(2)], jobs: [job, job, job] };
}

describe('calculators of the building', () => {
  const cases = scheduled.cases.filter((c) => c.kind === 'schedule');
  it.each(cases.map((c) => [c.id, c] as const))(
    '%s: feasible, and at most 2 %% over the best',
    (_, c) => {
      const inputs = c.inputs as { tasks: (Awaiting & { people: number })[]; crew: number };
      const { outputs } = runCase({ kind: 'schedule', inputs }) as {
        outputs: {
          finish_h: number;
          lower_bound_h: number;
          tasks: Record<string, { start_h: number }>;
        };
      };
      expect(outputs.finish_h).toBeLessThanOrEqual(
        1.02 * (c.expected as { finish_h: number }).finish_h,
      );
      const at = (id: string) => outputs.tasks[id]!.start_h;
      for (const t of inputs.tasks) {
        expect(Number.isInteger(at(t.id))).toBe(true);
        for (const a of t.after)
        expect(at(t.id)).toBeGreaterThanOrEqual(at(a.id) + inputs.tasks.find((x) => x.id === a.id)!.hours + a.wait_h); // prettier-ignore
      }
      for (let h = 0; h < outputs.finish_h; h++) {
        const busy = inputs.tasks.filter((t) => at(t.id) <= h && h < at(t.id) + t.hours);
        expect(busy.reduce((n, t) => n + t.people, 0)).toBeLessThanOrEqual(inputs.crew);
      }
      expect(outputs.lower_bound_h).toBeLessThanOrEqual(outputs.finish_h);
    },
  );

  it('refuses a circle, a stranger, a double and a crowd', () => {
    const t = (id: string, after: string[], people = 1) => ({ id, hours: 1, people, after: after.map((a) => ({ id: a, wait_h: 0 })) }); // prettier-ignore
    const ask = (tasks: object[], crew = 2) =>
      runCase({ kind: 'schedule', inputs: { tasks, crew } });
    expect(() => ask([t('a', ['b']), t('b', ['a'])])).toThrow(/"a", "b" wait for one another/);
    expect(() => ask([t('a', ['x'])])).toThrow(/"a" waits for "x", which is not there/);
    expect(() => ask([t('a', []), t('a', [])])).toThrow(/"a" is there twice/);
    expect(() => ask([t('a', [], 3)])).toThrow(/"a" wants 3 people, and there are 2/);
  });
});

describe('the critical path', () => {
  const nets = fc
    .array(
      fc.record({
        hours: fc.integer({ min: 0, max: 9 }),
        backs: fc.array(fc.integer({ min: 1, max: 5 }), { maxLength: 3 }),
        wait_h: fc.constantFrom(0, 8),
      }),
      { minLength: 1, maxLength: 14 },
    ) // prettier-ignore
    .map(
      (rows) =>
      rows.map((r, k): Awaiting => ({ id: `t${k}`, hours: r.hours, after: [...new Set(r.backs)].filter((b) => b <= k).map((b) => ({ id: `t${k - b}`, wait_h: r.wait_h })) })), // prettier-ignore
    );
  /** Longest chain that ends with a task, by trying all of them. */
  const longest = (tasks: readonly Awaiting[], k: number): number =>
    tasks[k]!.hours + Math.max(0, ...tasks[k]!.after.map((a) => a.wait_h + longest(tasks, tasks.findIndex((t) => t.id === a.id)))); // prettier-ignore

  it('is as long as the longest chain, and a task that is late by its float and an hour makes it longer', () => {
    fc.assert(
      fc.property(nets, (tasks) => {
        const { finish_h, tasks: times } = criticalPath(tasks);
        expect(finish_h).toBe(Math.max(...tasks.map((_, k) => longest(tasks, k))));
        for (const t of tasks) {
          const longer = (by: number) => criticalPath(tasks.map((x) => (x === t ? { ...x, hours: x.hours + by } : x))).finish_h; // prettier-ignore
          expect(longer(times[t.id]!.float_h)).toBe(finish_h);
          expect(longer(times[t.id]!.float_h + 1)).toBe(finish_h + 1);
        }
      }),
      { numRuns: 100, seed: 6 },
    );
  });

  it('puts each task after all that it waits for', () => {
    const tasks = [
      { id: 'b', after: [{ id: 'a', wait_h: 0 }] },
      { id: 'a', after: [] },
    ];
    expect(inOrder(tasks)).toEqual([1, 0]);
  });
});

describe('a clock', () => {
  it('turned about twice is itself, and waits run over nights', () => {
    const clock = dayClock(3);
    expect([...turned(turned(clock, 24), 24).at_h].map((h) => h + 8)).toEqual([...clock.at_h]);
    expect(endOf_h(clock, 8)).toBe(16);
    // Eight hours after the end of the first day it is night: the next morning.
    expect(slotFrom(clock, 16 + 8)).toBe(8);
    expect(slotFrom(clock, 16 + 17)).toBe(9);
    expect(slotFrom(clock, 1e9)).toBe(24);
  });
});

describe('who does what', () => {
  it('seats nobody twice and nobody who is away, as many as are wanted', () => {
    fc.assert(
      fc.property(problems, (asked) => {
        // Five people; the second and third are the two by name.
        const there = [0, 1, 2, 3, 4].map((m) => asked.caps[m === 2 ? 2 : 1]!);
        const crew = Int16Array.from(there[0]!, (_, s) => there.reduce((n, t) => n + t[s]!, 0));
        const jobs = asked.jobs.map((j) => ({ ...j, oneOf: [], needs: j.needs.some(([r]) => r === 0) ? j.needs : [] })); // prettier-ignore
        const p = { ...asked, jobs, caps: [crew, asked.caps[1]!, asked.caps[2]!] };
        const found = schedule(p, { tries: 4 })!;
        const seats = p.jobs.map((j, k) => ({
          start: found.start[k]!,
          slots: j.slots,
          people: j.needs.find(([r]) => r === 0)?.[1] ?? 0,
          given: j.needs.some(([r]) => r === 2) ? [2] : [],
        }));
        const stints = seat(seats, there);
        const busy = new Set<string>();
        stints.forEach((list, k) => {
          let covered = 0;
          for (const s of list) {
            covered += s.to - s.from;
            expect(s.who.length).toBe(seats[k]!.people);
            for (const g of seats[k]!.given) expect(s.who).toContain(g);
            for (const m of s.who)
              for (let t = s.from; t < s.to; t++) {
                expect(there[m]![t]).toBe(1);
                expect(busy.has(`${m} ${t}`)).toBe(false);
                busy.add(`${m} ${t}`);
              }
          }
          expect(covered).toBe(seats[k]!.slots);
        });
      }),
      { numRuns: 120, seed: 7 },
    );
  });
});

it('no bound is above what was found, and some are reached', () => {
  const p = sample();
  expect(boundOf(p)).toBe(6);
  expect(schedule(p)!.finish).toBe(6);
});
