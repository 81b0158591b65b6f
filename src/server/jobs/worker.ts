/** The process in which jobs run: one at a time, as they are sent. */
import { FormatError } from '../../formats/error.js';
import { JOBS, type Job, type JobName, type Outcome } from './kinds.js';

export interface Order {
  readonly number: number;
  readonly name: JobName;
  readonly input: never;
  /** Most that may come back. */
  readonly output: number;
}

export type Answer = { readonly number: number } &
  /** The helper is up and takes the job now. */
  (
    | { readonly begun: true }
    | { readonly outcome: Outcome }
    | { readonly place: string; readonly reason: string; readonly fault: boolean }
  );

process.on('message', (order: Order) => void serve(order));
// The server has gone: so does its helper.
process.on('disconnect', () => process.exit());

async function serve({ number, name, input, output }: Order): Promise<void> {
  process.send!({ number, begun: true } satisfies Answer);
  process.send!(await work(number, JOBS[name] as unknown as Job<never>, input, output));
}

async function work(
  number: number,
  job: Job<never>,
  input: never,
  output: number,
): Promise<Exclude<Answer, { begun: true }>> {
  try {
    const outcome = await job.run(input);
    const size = Object.values(outcome).reduce((n, text) => n + text.length, 0);
    if (size > output) throw new FormatError('', 'what comes of it is too large');
    return { number, outcome };
  } catch (error) {
    const { message } = error as Error;
    if (error instanceof FormatError)
      return { number, place: error.place, reason: error.reason, fault: false };
    // What a computation or a parser refuses by a range is the input's fault, and said as such.
    return { number, place: '', reason: message, fault: !(error instanceof RangeError) };
  }
}
