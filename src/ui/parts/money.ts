import { moneyText } from '../../core/base/locale.js';
import { FOOT } from '../../core/base/units.js';
import { useSession } from '../../session/session.js';

/** Money by the metre or the foot, in the property's currency. */
export function usePerMetre(): (per_m: number) => string {
  const currency = useSession((s) => s.plan.currency);
  const metric = useSession((s) => s.plan.units === 'metric');
  return (per_m) => `${moneyText(metric ? per_m : per_m * FOOT, currency)}/${metric ? 'm' : 'ft'}`;
}

/** Money in the property's currency. */
export function useMoney(): (amount: number) => string {
  const currency = useSession((s) => s.plan.currency);
  return (amount) => moneyText(amount, currency);
}
