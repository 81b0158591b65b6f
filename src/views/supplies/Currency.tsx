/** The currency of the prices; another one asks what is to become of the figures. */
import { useState } from 'react';
import { changeCurrency, CURRENCIES } from '../../core/supplies/currency.js';
import { useCatalogue } from '../../session/catalogue.js';
import { commit, useSession } from '../../session/session.js';
import { Button } from '../../ui/parts/Button.js';
import { Select } from '../../ui/parts/controls.js';
import { FieldFault } from '../../ui/parts/FieldFault.js';

export function Currency() {
  const currency = useSession((s) => s.plan.currency);
  const cat = useCatalogue();
  const [to, setTo] = useState<string | null>(null);
  const [text, setText] = useState('');
  const [asked, setAsked] = useState(false);
  const factor = Number(text.replace(',', '.'));
  const take = (by: number) => {
    commit(`prices in ${to}`, (d) => changeCurrency(d, to!, by, cat));
    setTo(null);
    setText('');
    setAsked(false);
  };
  const known = CURRENCIES.includes(currency) ? CURRENCIES : [currency, ...CURRENCIES];
  return (
    <span className="inline-flex flex-wrap items-end gap-2">
      <Select
        label="Currency"
        value={to ?? currency}
        options={known.map((c) => [c, c] as const)}
        onChange={(c) => setTo(c === currency ? null : c)}
      />
      {to !== null && (
        <span
          role="group"
          aria-label="What becomes of the prices"
          className="border-ink inline-flex flex-wrap items-end gap-2 border p-2"
        >
          <span>The prices are in {currency}.</span>
          <Button onClick={() => take(1)}>They are {to} already</Button>
          <label className="flex flex-col">
            <span className="label">
              1 {currency} is worth, in {to}
            </span>
            <input
              className="field figure w-24"
              inputMode="decimal"
              value={text}
              aria-invalid={asked && !(factor > 0)}
              onChange={(e) => setText(e.target.value)}
            />
          </label>
          <Button
            strong
            onClick={() => {
              setAsked(true);
              if (factor > 0) take(factor);
            }}
          >
            Work them all out
          </Button>
          <Button onClick={() => setTo(null)}>Stay with {currency}</Button>
          {asked && !(factor > 0) && <FieldFault>A number above 0 is wanted.</FieldFault>}
        </span>
      )}
    </span>
  );
}
