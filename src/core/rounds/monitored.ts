/** Devices on the fence that report by themselves. */

/** Kinds that a monitor reports. */
export const MONITORED = ['volts', 'earth_volts', 'battery_volts'] as const;

export interface Monitor {
  readonly id: string;
  readonly name: string;
  readonly kind: (typeof MONITORED)[number];
  /** On a line, so many metres from its start; or at a unit. */
  readonly line: string | null;
  readonly at_m: number | null;
  readonly unit: string | null;
  readonly simulated: boolean;
  readonly made_at: string;
  readonly revoked_at: string | null;
  /** What it reported last, V, and when. */
  readonly heard: number | null;
  readonly heard_at: string | null;
}
