/** Asks for a way of the hand: its pictures shuffled, to be put in order; or one that does not belong, to be found. */
import { useState } from 'react';
import type { HandCard } from '../../core/hand/card.js';
import { CARDS } from '../../core/hand/cards/index.js';
import { range } from '../../core/base/numbers.js';
import { shuffle, uniform } from '../../core/base/random.js';
import { keepHere, keptHere } from '../../session/here.js';
import { Button } from '../../ui/parts/Button.js';
import { CardDrawing } from './CardDrawing.js';

interface Tally {
  readonly right: number;
  readonly wrong: number;
}
const KEY = 'anabatic.trainer';
type Tallies = Readonly<Record<string, Tally>>;

/** A picture of some card. */
interface Shown {
  readonly card: HandCard;
  readonly k: number;
}
interface Round {
  readonly game: 'order' | 'stranger';
  readonly shown: readonly Shown[];
}

/** A round by a seed: in turns the order asked for, and the picture that does not belong. */
export function roundOf(card: HandCard, seed: number): Round {
  const random = uniform(seed * 7919 + card.id.length);
  const own = card.steps.map((_, k): Shown => ({ card, k }));
  if (seed % 2 === 0) {
    let order = range(own.length);
    shuffle(order, random);
    // A round that is in order already asks for nothing.
    if (order.every((k, i) => k === i)) order = [...order.slice(1), order[0]!];
    return { game: 'order', shown: order.map((k) => own[k]!) };
  }
  const others = CARDS.filter((c) => c.id !== card.id);
  const other = others[Math.floor(random() * others.length)]!;
  const at = Math.floor(random() * own.length);
  const k = Math.min(at, other.steps.length - 1);
  return { game: 'stranger', shown: own.map((s, i) => (i === at ? { card: other, k } : s)) };
}

export function Trainer({ card }: { card: HandCard }) {
  const [seed, setSeed] = useState(() => Math.floor(Date.now() / 1000));
  const [pressed, setPressed] = useState<readonly number[]>([]);
  const [said, setSaid] = useState<'right' | 'wrong' | null>(null);
  const [tallies, setTallies] = useState<Tallies>(() => keptHere<Tallies>(KEY, {}));
  const round = roundOf(card, seed);
  const own = tallies[card.id] ?? { right: 0, wrong: 0 };
  const tell = (result: 'right' | 'wrong') => {
    setSaid(result);
    const next = { ...tallies, [card.id]: { ...own, [result]: own[result] + 1 } };
    setTallies(next);
    keepHere(KEY, next);
  };
  const press = (i: number) => {
    if (said) return;
    if (round.game === 'stranger') {
      setPressed([i]);
      return tell(round.shown[i]!.card === card ? 'wrong' : 'right');
    }
    if (pressed.includes(i)) return;
    const next = [...pressed, i];
    setPressed(next);
    if (round.shown[i]!.k !== pressed.length) return tell('wrong');
    if (next.length === round.shown.length) tell('right');
  };
  const again = () => {
    setSeed(seed + 1);
    setPressed([]);
    setSaid(null);
  };
  return (
    <div data-trainer={round.game}>
      <p className="mb-2">
        {round.game === 'order'
          ? 'Press the pictures in the order of the work.'
          : 'One picture does not belong to this card. Which?'}
      </p>
      <ol className="grid gap-3 [grid-template-columns:repeat(auto-fill,minmax(13rem,1fr))]">
        {round.shown.map((s, i) => {
          const place = pressed.indexOf(i);
          const mark = round.game === 'order' ? (place >= 0 ? String(place + 1) : '') : place >= 0 ? '▲' : ''; // prettier-ignore
          return (
            <li key={i}>
              <button
                className={`border-rule bg-panel hover:border-ink w-full cursor-pointer border p-1 ${place >= 0 ? 'bg-chosen border-ink' : ''}`}
                aria-label={`Picture ${i + 1}${mark ? `, chosen ${mark}` : ''}`}
                data-picture={s.card === card ? s.k : 'stranger'}
                onClick={() => press(i)}
              >
                <CardDrawing card={s.card} k={s.k} />
                <span className="figure block h-5">{mark}</span>
              </button>
            </li>
          );
        })}
      </ol>
      <p className="mt-3 flex flex-wrap items-center gap-4" role="status" data-said={said ?? ''}>
        {said === 'right' && <strong>✓ Right.</strong>}
        {said === 'wrong' && (
          <strong>
            ✗ Not so.{' '}
            {round.game === 'order'
              ? `Next would be: ${card.steps[pressed.length - 1]!.words}`
              : `It is picture ${round.shown.findIndex((s) => s.card !== card) + 1}, of “${round.shown.find((s) => s.card !== card)!.card.name}”.`}
          </strong>
        )}
        <Button strong={said !== null} onClick={again}>
          {said ? 'Another' : 'Another one'}
        </Button>
        <span data-tally>
          {own.right} right, {own.wrong} wrong on this card
        </span>
      </p>
    </div>
  );
}
