/** Items of the property's own, that the plan counts nowhere: oil, a meal, a skip. */
import { useState } from 'react';
import { Trash2 } from 'lucide-react';
import { ownItem } from '../../core/plan/book.js';
import { dropOwnItem, putQuote } from '../../core/supplies/bookEdits.js';
import { freeId } from '../../core/plan/ids.js';
import { commit, useSession } from '../../session/session.js';
import { Button } from '../../ui/parts/Button.js';
import { NameField, QuantityField, Part } from '../../ui/parts/controls.js';
import { FieldFault } from '../../ui/parts/FieldFault.js';
import { today } from '../../session/today.js';

export function OwnItems() {
  const own = useSession((s) => s.plan.ownItems) ?? {};
  const currency = useSession((s) => s.plan.currency);
  const [draft, setDraft] = useState({ name: '', per: 'each', quantity: '1', price: '' });
  const [fault, setFault] = useState<string | null>(null);
  const put = (key: keyof typeof draft) => (e: { target: { value: string } }) =>
    setDraft({ ...draft, [key]: e.target.value });
  const number = (text: string) => (text.trim() === '' ? NaN : Number(text.replace(',', '.')));
  const add = () => {
    const [name, per] = [draft.name.trim(), draft.per.trim()];
    const [quantity, price] = [number(draft.quantity), number(draft.price)];
    if (name === '') return setFault('A name is wanted.');
    if (per === '') return setFault('What is one of it? each, m, box …');
    if (!(quantity >= 0 && quantity <= 1e6)) return setFault('Quantity: a number of 0 or more.');
    if (!(price >= 0 && price <= 1e7)) return setFault('Price: a number of 0 or more.');
    setFault(null);
    commit(`own item ${name}`, (d) => {
      const id = freeId(d.ownItems ?? {}, 'item');
      d.ownItems = { ...d.ownItems, [id]: { name, per, quantity } };
      putQuote(d, ownItem(id), { price, on: today() });
    });
    setDraft({ name: '', per: 'each', quantity: '1', price: '' });
  };
  const field = (key: keyof typeof draft, label: string, width: string, max: number) => (
    <label className="flex flex-col">
      <span className="label">{label}</span>
      <input className={`field ${width}`} value={draft[key]} maxLength={max} onChange={put(key)} />
    </label>
  );
  return (
    <Part title="Items of your own">
      {Object.entries(own).map(([id, item]) => (
        <div key={id} className="mb-1 flex flex-wrap items-center gap-3">
          <NameField
            name={item.name}
            label={`Name of ${item.name}`}
            width="w-52"
            onCommit={(name) => commit(`renamed ${item.name}`, (d) => void (d.ownItems![id]!.name = name))} // prettier-ignore
          />
          <QuantityField
            label={`Quantity of ${item.name}`}
            hideLabel
            q="count"
            min={0}
            max={1e6}
            value={item.quantity}
            onCommit={(n) => commit(`quantity of ${item.name}`, (d) => void (d.ownItems![id]!.quantity = n))} // prettier-ignore
          />
          <span className="label">{item.per}</span>
          <Button
            aria-label={`Take ${item.name} away`}
            onClick={() => commit(`took ${item.name} away`, (d) => dropOwnItem(d, id))}
          >
            <Trash2 size={14} aria-hidden />
          </Button>
        </div>
      ))}
      <form
        className="mt-2 flex flex-wrap items-end gap-3"
        onSubmit={(e) => {
          e.preventDefault();
          add();
        }}
      >
        {field('name', 'Item', 'w-52', 80)}
        {field('quantity', 'Quantity', 'w-20', 12)}
        {field('per', 'of', 'w-20', 12)}
        {field('price', `Price of one, ${currency}`, 'w-24', 12)}
        <Button type="submit">Add it</Button>
        {fault && <FieldFault>{fault}</FieldFault>}
      </form>
    </Part>
  );
}
