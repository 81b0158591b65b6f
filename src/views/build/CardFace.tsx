/** One bench card: its steps drawn and said, what is looked at afterwards, what goes wrong. On screen and on paper. */
import { inUnits } from '../../core/base/prose.js';
import type { Units } from '../../core/base/units.js';
import type { HandCard } from '../../core/hand/card.js';
import { CardDrawing } from './CardDrawing.js';

interface CardFaceProps {
  readonly card: HandCard;
  readonly units: Units;
  readonly turn?: number;
  /** On A5, small. */
  readonly paper?: boolean;
}

export function CardFace({ card, units, turn = 0, paper = false }: CardFaceProps) {
  const say = (text: string) => inUnits(text, units);
  return (
    <>
      <p className={paper ? 'my-1 text-[0.8rem]' : 'mb-2'}>{say(card.use)}</p>
      <ol className={paper ? 'grid grid-cols-2 gap-x-3 gap-y-1 [&_svg]:max-h-[34mm]' : 'grid gap-3 [grid-template-columns:repeat(auto-fill,minmax(15rem,1fr))]'}>
        {card.steps.map((s, k) => (
          <li key={k} className={`break-inside-avoid ${paper ? '' : 'border-rule bg-panel border p-2'}`}>
            <CardDrawing card={card} k={k} turn={turn} label={`Step ${k + 1}: ${say(s.words)}`} />
            <p className={paper ? 'text-[0.72rem] leading-tight' : ''}>
              <strong>{k + 1}</strong> {say(s.words)}
            </p>
          </li>
        ))}
      </ol>
      <div className={paper ? 'mt-auto grid grid-cols-3 gap-2 pt-2 text-[0.68rem] leading-tight' : 'mt-4 grid gap-4 @[46rem]:grid-cols-3'}>
        <List title="Look at" items={card.inspect.map(say)} mark="✓" />
        <List title="What goes wrong" items={card.wrong.map(say)} mark="✗" />
        <List title="Care" items={card.care.map(say)} mark="△" />
      </div>
    </>
  );
} // prettier-ignore

function List({ title, items, mark }: { title: string; items: readonly string[]; mark: string }) {
  return (
    <section aria-label={title}>
      <h3 className="font-semibold">{title}</h3>
      <ul>
        {items.map((i) => (
          <li key={i} className="flex gap-1.5">
            <span aria-hidden>{mark}</span> {i}
          </li>
        ))}
      </ul>
    </section>
  );
}
