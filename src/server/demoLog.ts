/** The invented season of the demo property, put into a store as if it had just been. */
import { randomUUID } from 'node:crypto';
import type { RecordStore } from './records/store.js';

export interface DemoLog {
  readonly entries: readonly {
    readonly kind: string;
    /** Days before today. */
    readonly before: number;
    readonly clock: string;
    readonly fields: object;
  }[];
}

const DAY = 86_400_000;

/** @param now when the demo is opened: its last round was the day before */
export const putDemoLog = (
  records: Pick<RecordStore, 'putAll'>,
  property: string,
  log: DemoLog,
  now = Date.now(),
): Promise<void> =>
  records.putAll(
    property,
    log.entries.map(({ kind, before, clock, fields }) => {
      const day = new Date(now - before * DAY).toISOString().slice(0, 10);
      return {
        kind,
        record: { id: randomUUID(), time: `${day}T${clock}:00Z`, note: '', ...fields },
      };
    }),
  );
