/** How a property writes money and dates: by where its currency is at home, the same in every browser. */

const HOME: Readonly<Record<string, string>> = {
  GBP: 'en-GB',
  EUR: 'en-IE',
  NZD: 'en-NZ',
  AUD: 'en-AU',
  USD: 'en-US',
  CAD: 'en-CA',
  ZAR: 'en-ZA',
  CHF: 'en-CH',
};

/** The locale of a property. @param currency its three letters (ISO 4217) */
export const localeOf = (currency: string): string => HOME[currency] ?? 'en-GB';

/** Numbers are written one way, money too: narrow spaces by threes, a point. Only the sign stands where it does at home. */
const OURS: Readonly<Record<string, string>> = { group: '\u202f', decimal: '.' };

/** An amount of money. @param whole without the small coins */
export function moneyText(amount: number, currency: string, whole = false): string {
  return new Intl.NumberFormat(localeOf(currency), {
    style: 'currency',
    currency,
    ...(whole ? { maximumFractionDigits: 0 } : {}),
  })
    .formatToParts(amount)
    .map((part) => OURS[part.type] ?? part.value)
    .join('');
}

/** A day in words. */
export const dayText = (at: Date, currency: string): string =>
  new Intl.DateTimeFormat(localeOf(currency), { dateStyle: 'long' }).format(at);
