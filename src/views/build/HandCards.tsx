/** Bench cards on paper, one A5 each. */
import './build.css';
import type { Units } from '../../core/base/units.js';
import type { HandCard } from '../../core/hand/card.js';
import { CARDS } from '../../core/hand/cards/index.js';
import { Card, CardPages } from '../print/CardPages.js';
import { numbered, type Leaf } from '../print/leaf.js';
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
      {numbered(handLeaves(plan.units, cards))}
    </CardPages>
  );
}

/** Bench cards as leaves. */
export const handLeaves = (units: Units, cards: readonly HandCard[] = CARDS): Leaf[] =>
  cards.map((card) => ({
    key: card.id,
    of: card.name,
    draw: (mark) => (
      <Card label={card.name} title={card.name} mark={mark}>
        <CardFace card={card} units={units} paper />
      </Card>
    ),
  }));
