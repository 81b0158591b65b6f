import { useState } from 'react';
import type { Energiser } from '../../core/plan/schema.js';
import type { SplitOffer } from '../../workers/questions.js';
import { askPower, usePower } from '../../session/power.js';
import { commitPatch, useSession } from '../../session/session.js';
import { Asked } from '../../ui/parts/Asked.js';
import { Button } from '../../ui/parts/Button.js';
import { DataTable } from '../../ui/parts/DataTable.js';
import { Num, useUnits } from '../../ui/parts/Num.js';
import { say } from '../../core/base/units.js';
import { PULSE } from './origins.js';

/** What would raise the worst point, each with the volts that it brings; the fence made into two at last. */
export function Remedies({ unit }: { unit: Energiser }) {
  const answer = usePower(`remedies ${unit.id}`, (api) => api.remedies(unit.id));
  const { value, waiting } = answer;
  // Nothing is offered before all rules have looked at it.
  const key = value && !waiting ? value.remedies.map((r) => r.id).join() : null;
  const { value: judged, waiting: judging } = usePower(key && `judged ${unit.id} ${key}`, (api) =>
    api.judged(value!.remedies),
  );
  const lines = useSession((s) => s.plan.lines);
  const units = useUnits();
  if (!value) return <Asked of={answer} doing="Trying what would help" />;
  const { now } = value;
  const may = waiting || judging ? null : judged;
  const remedies = may ?? value.remedies;
  return (
    <>
      <DataTable
        label="What would help"
        rows={remedies}
        keyOf={(r) => r.id}
        columns={[
          { name: 'remedy', head: true, cell: (r) => named(r.words, lines) },
          {
            name: 'worst point',
            n: true,
            from: PULSE,
            cell: (r) => (
              <>
                <Num value={r.score.worst.v_V} q="volt" />{' '}
                <span className="label">{say(r.score.share, 'percent', units)} of the aim</span>
              </>
            ),
          },
          { name: 'but', cell: (r) => <span className="label">{r.but}</span> },
          {
            name: 'do',
            quiet: true,
            n: true,
            cell: (r) =>
              r.patch &&
              r.patch.length > 0 && (
                <Button
                  disabled={!may}
                  title={may ? undefined : 'What else it would bring is looked at first'}
                  className="small whitespace-nowrap"
                  aria-label={`Do it: ${named(r.words, lines)}`}
                  onClick={() => commitPatch(r.words, [...r.patch!])}
                >
                  do it
                </Button>
              ),
          },
        ]}
      />
      <p className="label mt-1">
        Now: <Num value={now.worst.v_V} q="volt" /> against an aim of{' '}
        <Num value={now.worst.aim_V} q="volt" /> on {lines[now.worst.line]?.name}. Each by itself,
        in the season that decides then; what is not done here has no button.{' '}
        <span role="status">{may ? '' : 'What else each would bring is being looked at …'}</span>
      </p>
      <Split unit={unit} />
    </>
  );
}

/** A remedy names a line by its key; people know it by its name. */
const named = (words: string, lines: Readonly<Record<string, { name: string }>>): string =>
  words.replace(/Tie the worst place to (\S+) with/, (all, id: string) =>
    lines[id] ? `Tie the worst place to ${lines[id].name} with` : all,
  );

function Split({ unit }: { unit: Energiser }) {
  const [offer, setOffer] = useState<SplitOffer | 'none' | 'asked' | null>(null);
  const energisers = useSession((s) => s.plan.energisers);
  const lines = useSession((s) => s.plan.lines);
  const units = useUnits();
  if (offer === null || offer === 'asked')
    return (
      <Button
        className="mt-1"
        disabled={offer === 'asked'}
        onClick={() => {
          setOffer('asked');
          void askPower((api) => api.split(unit.id)).then((o) => setOffer(o ?? 'none'));
        }}
      >
        Two fences instead of one …
      </Button>
    );
  if (offer === 'none')
    return <p role="status">It cannot be parted at ends of lines: cut a line first, on Land.</p>;
  const { split, patch, scores } = offer;
  return (
    <div className="border-rule mt-2 border p-2" data-split>
      <p>
        A second unit for {split.lines.map((id) => lines[id]?.name).join(', ')}:{' '}
        {scores.map(({ energiser, score }, k) => (
          <span key={energiser}>
            {k > 0 && ', '}
            {energisers[energiser]?.name ?? 'the new one'}{' '}
            <strong>{score ? say(score.worst.v_V, 'volt', units) : '–'}</strong>{' '}
            {score && `(${say(score.share, 'percent', units)} of the aim)`}
          </span>
        ))}
        .
      </p>
      <p className="label">
        {split.gaps.length} ends are drawn back by{' '}
        {say(Math.max(...split.gaps.map((g) => g.wide_m)), 'tape', units)} at most, so that no one
        can touch both fences. Close each gap with something that does not conduct: a wooden gate, a
        hedge, a wall.
      </p>
      <span className="mt-1 flex gap-2">
        <Button
          onClick={() => {
            commitPatch('two fences instead of one', [...patch]);
            setOffer(null);
          }}
        >
          Part it
        </Button>
        <Button onClick={() => setOffer(null)}>Leave it whole</Button>
      </span>
    </div>
  );
}
