/** A battery and a panel for an energiser: what they must be, and how they come through the days. */

export interface SolarInputs {
  readonly stored_J: number;
  readonly pulses_per_min: number;
  /** Of what the battery gives, how much is stored for the pulse. */
  readonly efficiency: number;
  readonly standby_W: number;
  readonly battery_V: number;
  readonly battery_Ah: number;
  readonly usable_share: number;
  readonly panel_W: number;
  /** Of the panel's rated watts in full sun, what comes into the battery. */
  readonly panel_share: number;
  readonly days_of_cloud: number;
  /** Hours of full sun a day, by month. */
  readonly month_sun_h: readonly number[];
  /** Charge at the start, of what is usable. */
  readonly start_share: number;
  readonly sun_h_by_day: readonly number[];
}

/**
 * Mean draw, the battery for the days of cloud, the panel for the month of least sun, and the charge day by day;
 * a day that would draw more than there is counts as flat (docs/model.md, Power).
 */
export function solarSupply(i: SolarInputs) {
  const mean_W = (i.stored_J * i.pulses_per_min) / 60 / i.efficiency + i.standby_W;
  const daily_Wh = 24 * mean_W;
  const usable_Wh = i.battery_Ah * i.battery_V * i.usable_share;
  const least = Math.min(...i.month_sun_h);
  let charge = i.start_share * usable_Wh;
  let lowest = charge;
  let flat_days = 0;
  let first_flat_day: number | null = null;
  i.sun_h_by_day.forEach((sun_h, day) => {
    const then = charge + i.panel_W * sun_h * i.panel_share - daily_Wh;
    if (then < 0) {
      flat_days++;
      first_flat_day ??= day;
    }
    charge = Math.min(usable_Wh, Math.max(0, then));
    lowest = Math.min(lowest, charge);
  });
  return {
    mean_W,
    daily_Wh,
    usable_Wh,
    battery_needed_Ah: (daily_Wh * i.days_of_cloud) / (i.battery_V * i.usable_share),
    panel_needed_W: daily_Wh / (least * i.panel_share),
    /** From 1 for January. */
    worst_month: i.month_sun_h.indexOf(least) + 1,
    lowest_Wh: lowest,
    lowest_share: lowest / usable_Wh,
    flat_days,
    first_flat_day,
    last_Wh: charge,
  };
}
