import { FOOT } from '../../core/base/units.js';
import { useSession } from '../../session/session.js';

/** Money by the metre or the foot, in the property's currency. */
export function usePerMetre(): (per_m: number) => string {
  const currency = useSession((s) => s.plan.currency);
  const metric = useSession((s) => s.plan.units === 'metric');
  const format = new Intl.NumberFormat(undefined, { style: 'currency', currency });
  return (per_m) => `${format.format(metric ? per_m : per_m * FOOT)}/${metric ? 'm' : 'ft'}`;
}
