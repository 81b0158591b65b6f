/** Battery and panel of an energiser over a year: what it needs, and whether it comes through. */
import { figure, type Catalogue } from '../plan/catalogue.js';
import type { Energiser } from '../plan/schema.js';
import { plateOfUnit } from '../power/unit.js';
import { solarSupply } from './solar.js';
import { sunByDay, sunByLatitude } from './sun.js';

export type Supply = NonNullable<Energiser['supply']>;

/** What a supply is taken to be until somebody says. */
export const usualSupply = (cat: Catalogue): Supply => ({
  battery_V: 12,
  battery_Ah: 60,
  panel_W: 20,
  usable: figure(cat, 'supply.usable'),
  cloud_days: figure(cat, 'supply.cloudDays'),
});

/** Latitude that an invented sky is taken for where the plan lies nowhere in particular, degrees. */
const SOMEWHERE = 50;

/** Hours of full sun by month: typed ones, else an invented sky of that latitude. */
export const monthsOf = (supply: Supply, latitude: number | null, cat: Catalogue): number[] =>
  supply.sun_h
    ? [...supply.sun_h]
    : sunByLatitude(latitude ?? SOMEWHERE, figure(cat, 'supply.clear'));

/**
 * A year of an energiser on its battery and panel.
 * @param seed of the spells of cloud
 */
export function supplyYear(
  e: Energiser,
  supply: Supply,
  latitude: number | null,
  seed: number,
  cat: Catalogue,
) {
  const plate = plateOfUnit(e, cat);
  const month_sun_h = monthsOf(supply, latitude, cat);
  const inputs = {
    stored_J: plate.stored_J,
    pulses_per_min: 60 / plate.interval_s,
    efficiency: figure(cat, 'supply.efficiency'),
    standby_W: figure(cat, 'supply.standby'),
    battery_V: supply.battery_V,
    battery_Ah: supply.battery_Ah,
    usable_share: supply.usable,
    panel_W: supply.panel_W,
    panel_share: figure(cat, 'supply.panelShare'),
    days_of_cloud: supply.cloud_days,
    month_sun_h,
    start_share: 1,
  };
  const days = sunByDay(month_sun_h, seed);
  const year = solarSupply({ ...inputs, sun_h_by_day: days });
  // Charge day by day, as a share of what is usable, for the drawing.
  let charge = year.usable_Wh;
  const charge_share = days.map((h) => {
    charge = Math.min(year.usable_Wh, Math.max(0, charge + supply.panel_W * h * inputs.panel_share - year.daily_Wh)); // prettier-ignore
    return charge / year.usable_Wh;
  });
  return { ...year, month_sun_h, charge_share };
}

/** Copper, ohm mm2/m at 20 degrees [published: common tables]. */
const COPPER = 0.0175;

/**
 * Share of a panel's volts that its two leads lose in full sun: 2 L rho I / (A V).
 * @param length_m one way; @param section_mm2 of one core
 */
export const leadLoss = (supply: Supply, length_m: number, section_mm2: number): number =>
  (2 * length_m * COPPER * (supply.panel_W / supply.battery_V)) / (section_mm2 * supply.battery_V);
