/** Calculators of the building: what waits for what, and the plan with so many people. */
import { Type } from './base/type.js';
import { steadyClock } from './build/clock.js';
import { criticalPath, inOrder } from './build/network.js';
import { schedule } from './build/schedule.js';
import type { Problem } from './build/serial.js';
import { calculator, name, type Calculator } from './calculator.js';
import { sum } from './base/numbers.js';

const taskOf = (hours: ReturnType<typeof Type.Number> | ReturnType<typeof Type.Integer>) =>
  Type.Object({
    id: name,
    hours,
    people: Type.Integer({ minimum: 0, maximum: 1000, default: 1 }),
    after: Type.Array(
      Type.Object({ id: name, wait_h: Type.Number({ minimum: 0, maximum: 10_000, default: 0 }) }),
      { maxItems: 200, default: [] },
    ),
  });
const tasks = (of: ReturnType<typeof taskOf>) => Type.Array(of, { minItems: 1, maxItems: 1000 });
/** Hours that a plan may last: what it costs grows with them. */
const LONGEST = 20_000;

export const building: Readonly<Record<string, Calculator>> = {
  schedule_cpm: calculator(
    'Early and late starts of tasks and their critical path, with people without limit',
    Type.Object({ tasks: tasks(taskOf(Type.Number({ minimum: 0, maximum: 10_000 }))) }),
    (i) => criticalPath(i.tasks),
  ),
  schedule: calculator(
    'Whole-hour starts of tasks with a crew of so many, so that the last ends early',
    Type.Object({
      tasks: tasks(taskOf(Type.Integer({ minimum: 0, maximum: 1000 }))),
      crew: Type.Integer({ minimum: 1, maximum: 1000 }),
    }),
    (i) => {
      inOrder(i.tasks);
      const most = i.tasks.find((t) => t.people > i.crew);
      if (most) throw new RangeError(`tasks: "${most.id}" wants ${most.people} people, and there are ${i.crew}`); // prettier-ignore
      // One after another, each with its longest wait: no plan need be longer.
      const hours = sum(i.tasks.map((t) => t.hours + Math.ceil(Math.max(0, ...t.after.map((a) => a.wait_h))))); // prettier-ignore
      if (hours > LONGEST) throw new RangeError(`tasks: more than ${LONGEST} hours, one after another`); // prettier-ignore
      const at = new Map(i.tasks.map((t, k) => [t.id, k]));
      const problem: Problem = {
        clock: steadyClock(1, hours + 1),
        caps: [new Int16Array(hours + 1).fill(i.crew)],
        jobs: i.tasks.map((t) => ({
          slots: t.hours,
          after: t.after.map((a) => ({ job: at.get(a.id)!, wait_h: a.wait_h })),
          needs: t.people > 0 ? [[0, t.people]] : [],
          oneOf: [],
          from_h: 0,
          first: false,
        })),
      };
      // In a helper of its own there is time for more of them.
      const found = schedule(problem, { tries: Math.round(Math.min(6000, 600_000 / i.tasks.length)) })!; // prettier-ignore
      return {
        finish_h: found.finish,
        lower_bound_h: found.bound,
        proven: found.finish <= found.bound,
        tasks: Object.fromEntries(i.tasks.map((t, k) => [t.id, { start_h: found.start[k]! }])),
      };
    },
  ),
};
