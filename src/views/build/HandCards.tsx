/** Bench cards on paper, one A5 each. */
import './build.css';
import { CARDS } from '../../core/hand/cards/index.js';
import { Card, CardPages } from '../print/CardPages.js';
import { usePlanOf } from '../print/recordsOf.js';
import { CardFace } from './CardFace.js';

export function HandCards({ id }: { id: string }) {
  const plan = usePlanOf(id);
  const asked = new URLSearchParams(location.search).get('card');
  if (plan === null) return <p className="p-6">One moment …</p>;
  if (typeof plan === 'string')
    return (
      <p role="alert" className="p-6">
        {plan}
      </p>
    );
  const cards = CARDS.filter((c) => asked === null || c.id === asked);
  return (
    <CardPages
      back={[`/p/${id}/build`, 'Build']}
      title="Bench cards"
      count={`${cards.length} ${cards.length === 1 ? 'card' : 'cards'}, A5.`}
    >
      {cards.length === 0 && (
        <p role="alert" className="p-6">
          There is no card of that name.
        </p>
      )}
      {cards.map((card, k) => (
        <Card key={card.id} label={card.name} title={card.name} of={[k + 1, cards.length]}>
          <CardFace card={card} units={plan.units} paper />
        </Card>
      ))}
    </CardPages>
  );
}
