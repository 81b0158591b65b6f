/** Hours of full sun: a year by latitude, and days with spells of cloud. */
import { uniform } from '../base/random.js';

const DAYS = [31, 28, 31, 30, 31, 30, 31, 31, 30, 31, 30, 31] as const;
/** Sun above the air, kW/m2. */
const SOLAR = 1.367;

/**
 * Hours of full sun (1 kW/m2) on level ground a day, by month, for an invented sky that lets a share through:
 * daily radiation above the air [published: Duffie and Beckman, Solar Engineering] times that share.
 * @param clear share of the sun above the air that arrives, 0.35 to 0.6 in most places [assumed]
 */
export function sunByLatitude(latitude: number, clear: number): number[] {
  const phi = (latitude * Math.PI) / 180;
  let first = 1;
  return DAYS.map((days) => {
    const day = first + days / 2;
    first += days;
    const declination = ((23.45 * Math.PI) / 180) * Math.sin((2 * Math.PI * (284 + day)) / 365);
    const near = 1 + 0.033 * Math.cos((2 * Math.PI * day) / 365);
    const cosine = Math.min(1, Math.max(-1, -Math.tan(phi) * Math.tan(declination)));
    const set = Math.acos(cosine);
    const above = ((24 / Math.PI) * SOLAR * near * (Math.cos(phi) * Math.cos(declination) * Math.sin(set) + set * Math.sin(phi) * Math.sin(declination))); // prettier-ignore
    return Math.max(0.05, clear * above);
  });
}

/** Cloud follows cloud: how likely a dull day follows a dull one, and a bright one, and what each has of the mean. */
const STAYS = 0.7;
const TURNS = 0.3;
const DULL = 0.25;

/** A year of days with spells of cloud that keep each month's mean; the same for the same seed. */
export function sunByDay(month_sun_h: readonly number[], seed: number): number[] {
  const next = uniform(seed);
  let dull = false;
  return DAYS.flatMap((days, month) => {
    const sky = Array.from({ length: days }, () => {
      dull = next() < (dull ? STAYS : TURNS);
      return (dull ? DULL : 1) * (0.8 + 0.4 * next());
    });
    const mean = sky.reduce((sum, v) => sum + v, 0) / days;
    return sky.map((v) => Math.min(24, (v / mean) * month_sun_h[month]!));
  });
}
