/** What heads a step on paper: property, step, date, and under which season and temperature it was worked out. */
import { dayText } from '../../core/base/locale.js';
import { say } from '../../core/base/units.js';
import { useSession } from '../../session/session.js';
import { useViewOf } from '../../session/view.js';
import type { Step } from '../steps.js';
import { SEASON_WORDS } from './conditions.js';

export function PrintHead({ step }: { step: Step }) {
  const plan = useSession((s) => s.plan);
  const { season, warmth, line } = useViewOf('season', 'warmth', 'line');
  const name = step.oneLine && line ? plan.lines[line]?.name : undefined;
  return (
    <header className="print-only border-ink mb-4 border-b pb-1">
      <p className="text-[1.5rem] font-semibold">
        <bdi>{plan.name}</bdi>: {step.name}
        {name !== undefined && (
          <>
            , <bdi>{name}</bdi>
          </>
        )}
      </p>
      <p className="label">
        {dayText(new Date(), plan.currency)}; season {SEASON_WORDS[season]},{' '}
        {say(plan.climate[`${warmth}_C`], 'temperature', plan.units)}
        {plan.invented && '; everything in this property is made up'}. A first opinion: check local
        codes and the makers’ instructions, and ask licensed people.
      </p>
    </header>
  );
}
