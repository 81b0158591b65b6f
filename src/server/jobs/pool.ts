/** A few helper processes for jobs: each stopped at its limit of work or memory, or when nobody waits. */
import { fork, type ChildProcess } from 'node:child_process';
import { readFile } from 'node:fs/promises';
import { setPriority } from 'node:os';
import { FormatError } from '../../formats/error.js';
import { JOBS, type InputOf, type JobName, type Limits, type Outcome } from './kinds.js';
import type { Answer } from './worker.js';

/** A job that was stopped, or could not be begun; `status` as an HTTP answer has it. */
export class JobError extends Error {
  override readonly name = 'JobError';
  constructor(
    readonly status: 422 | 499 | 500 | 503,
    message: string,
  ) {
    super(message);
  }
}

interface Waiting {
  readonly name: JobName;
  readonly input: unknown;
  readonly signal: AbortSignal | undefined;
  done(outcome: Outcome): void;
  fail(error: Error): void;
}

interface Helper {
  readonly child: ChildProcess;
  job: (Waiting & { readonly number: number; begun(): void; stop(): void }) | null;
}

/**
 * By the clock a job may take so many times its limit of work: on a machine that is busy with other things,
 * sound input must not be refused, and a job that waits for something that never comes must still end.
 */
const PATIENCE = 5;

export interface PoolOptions {
  /** The built worker.ts. */
  readonly file: string;
  /** Helpers at the most. */
  readonly size?: number;
  /** Jobs that may wait for a helper. */
  readonly queue?: number;
  /** What a job may take; its own limits where nothing else is said. */
  limitsOf?(name: JobName): Limits;
  /** How often the work and memory of a helper are looked at, ms. */
  readonly look_ms?: number;
}

export interface Pool {
  /**
   * Runs a job.
   * @throws FormatError what the job finds wrong with its input; JobError when it was stopped, nobody
   * waits for it any more, or too many wait already
   */
  run<N extends JobName>(name: N, input: InputOf<N>, signal?: AbortSignal): Promise<Outcome>;
  close(): void;
}

export function createPool(options: PoolOptions): Pool {
  const {
    file,
    size = 2,
    queue = 40,
    look_ms = 60,
    limitsOf = (name) => JOBS[name].limits,
  } = options;
  const helpers: Helper[] = [];
  const line: Waiting[] = [];
  let numbers = 0;

  function start(): Helper {
    const child = fork(file, [], {
      // Half of the largest job's memory for the heap; typed arrays lie beside it.
      execArgv: ['--max-old-space-size=768'],
      serialization: 'advanced',
      stdio: ['ignore', 'ignore', 'ignore', 'ipc'],
    });
    const helper: Helper = { child, job: null };
    helpers.push(helper);
    // Who reads and saves goes first.
    if (child.pid !== undefined) quietly(() => setPriority(child.pid!, 10));
    child.on('message', (answer: Answer) => {
      const { job } = helper;
      if (job?.number !== answer.number) return;
      if ('begun' in answer) return job.begun();
      free(helper);
      if ('outcome' in answer) job.done(answer.outcome);
      else if (answer.fault) job.fail(new JobError(500, answer.reason));
      else job.fail(new FormatError(answer.place, answer.reason));
      next();
    });
    // It fell over by itself: a fatal error that no code can catch, such as memory.
    const gone = () =>
      drop(helper, new JobError(422, 'it could not be read: it is damaged, or too large'));
    child.on('exit', gone);
    child.on('error', gone);
    return helper;
  }

  function free(helper: Helper): void {
    helper.job?.stop();
    helper.job = null;
  }

  /** Counts a helper no more; who waited for its job is told why. */
  function drop(helper: Helper, why: JobError): void {
    const { job } = helper;
    free(helper);
    const at = helpers.indexOf(helper);
    if (at >= 0) helpers.splice(at, 1);
    job?.fail(why);
    next();
  }

  /** Ends a helper in the middle of its work. */
  function end(helper: Helper, why: JobError): void {
    helper.child.removeAllListeners('exit');
    helper.child.kill('SIGKILL');
    drop(helper, why);
  }

  function next(): void {
    while (line.length > 0) {
      const helper =
        helpers.find((h) => h.job === null) ?? (helpers.length < size ? start() : undefined);
      if (!helper) return;
      begin(helper, line.shift()!);
    }
  }

  function begin(helper: Helper, waiting: Waiting): void {
    const limits = limitsOf(waiting.name);
    const number = ++numbers;
    const size = (waiting.input as { body?: string | Uint8Array }).body?.length ?? 0;
    const seconds = limits.seconds + (limits.secondsPerMegabyte * size) / 1e6;
    const tooLong = () =>
      end(helper, new JobError(422, `it took longer than ${seconds.toFixed(0)} s and was stopped`));
    const late = setTimeout(tooLong, 1000 * PATIENCE * seconds);
    // Counted from where the helper takes the job: its own start is not the job's fault.
    let before: number | null = null;
    const look = setInterval(() => {
      void spentBy(helper.child.pid).then(({ megabytes, work_s }) => {
        if (helper.job?.number !== number) return;
        if (megabytes > limits.megabytes)
          end(helper, new JobError(422, 'it took too much memory and was stopped'));
        else if (before !== null && work_s - before > seconds) tooLong();
      });
    }, look_ms);
    const left = () => end(helper, new JobError(499, 'nobody waits for it any more'));
    waiting.signal?.addEventListener('abort', left, { once: true });
    const stop = () => {
      clearTimeout(late);
      clearInterval(look);
      waiting.signal?.removeEventListener('abort', left);
    };
    const begun = () => void spentBy(helper.child.pid).then(({ work_s }) => (before = work_s));
    helper.job = { ...waiting, number, begun, stop };
    const { name, input } = waiting;
    helper.child.send({ number, name, input, output: limits.output });
  }

  return {
    run: (name, input, signal) =>
      new Promise<Outcome>((done, fail) => {
        if (signal?.aborted) return fail(new JobError(499, 'nobody waits for it any more'));
        if (line.length >= queue)
          return fail(new JobError(503, 'too much is being worked out already; try again soon'));
        const waiting: Waiting = { name, input, signal, done, fail };
        signal?.addEventListener(
          'abort',
          () => {
            const at = line.indexOf(waiting);
            if (at < 0) return;
            line.splice(at, 1);
            fail(new JobError(499, 'nobody waits for it any more'));
          },
          { once: true },
        );
        line.push(waiting);
        next();
      }),
    close() {
      for (const helper of [...helpers]) end(helper, new JobError(503, 'the server is closing'));
    },
  };
}

/** Ticks of a processor in a second, as Linux tells them. */
const TICKS = 100;

/** Resident memory of a process, MB, and the work that processors did for it; 0 where the system does not tell. */
async function spentBy(pid: number | undefined): Promise<{ megabytes: number; work_s: number }> {
  const text = await readFile(`/proc/${pid}/stat`, 'utf8').catch(() => '');
  // After the name, which may hold blanks: the state is field 3, user and system time 14 and 15, resident pages 24.
  const field = text.slice(text.lastIndexOf(')') + 2).split(' ');
  const at = (n: number) => Number(field[n - 3] ?? 0);
  return { megabytes: (at(24) * 4096) / 1024 / 1024, work_s: (at(14) + at(15)) / TICKS };
}

function quietly(run: () => void): void {
  try {
    run();
  } catch {
    // Not every system lets a process be put behind others.
  }
}
