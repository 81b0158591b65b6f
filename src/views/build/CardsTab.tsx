/** Ways of the hand, step by step: looked at, turned, printed; and a trainer that asks for them. */
import { Printer } from 'lucide-react';
import { useId, useState } from 'react';
import { CARDS, cardOf } from '../../core/hand/cards/index.js';
import { useSession } from '../../session/session.js';
import { Button } from '../../ui/parts/Button.js';
import { Choice, Part, Select } from '../../ui/parts/controls.js';
import { useUnits } from '../../ui/parts/Num.js';
import { useBuildTab } from './built.js';
import { CardFace } from './CardFace.js';
import { Trainer } from './Trainer.js';

export function CardsTab() {
  const id = useSession((s) => s.id);
  const units = useUnits();
  const chosen = useBuildTab((t) => t.card);
  const card = cardOf(chosen ?? '') ?? CARDS[0]!;
  const [turn, setTurn] = useState(0);
  const [mode, setMode] = useState<'look' | 'train'>('look');
  const slider = useId();
  return (
    <div className="max-w-[76em]">
      <div className="mb-3 flex flex-wrap items-center gap-x-5 gap-y-2">
        <Select
          label="Card"
          width="max-w-[18rem]"
          value={card.id}
          options={CARDS.map((c) => [c.id, c.name] as const)}
          onChange={(c) => useBuildTab.setState({ card: c })}
        />
        <Choice<'look' | 'train'>
          label="Look or train"
          value={mode}
          options={[
            ['look', 'look'],
            ['train', 'train'],
          ]}
          onChange={setMode}
        />
        {mode === 'look' && (
          <>
            <span className="inline-flex items-center gap-2">
              <label className="label" htmlFor={slider}>
                turn it
              </label>
              <input
                id={slider}
                type="range"
                min={-60}
                max={60}
                step={5}
                value={turn}
                onChange={(e) => setTurn(Number(e.target.value))}
              />
              <Button disabled={turn === 0} onClick={() => setTurn(0)}>
                as drawn
              </Button>
            </span>
            <a className="button" href={`/cards/${id}?card=${card.id}`}>
              <Printer size={14} aria-hidden /> Print
            </a>
            <a className="button" href={`/cards/${id}`}>
              all {CARDS.length} cards
            </a>
          </>
        )}
      </div>
      <Part title={card.name}>
        {mode === 'look' ? (
          <CardFace card={card} units={units} turn={turn} />
        ) : (
          <Trainer key={card.id} card={card} />
        )}
      </Part>
    </div>
  );
}
