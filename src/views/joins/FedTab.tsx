/** From how many ends each stretch is fed, what a break would cost there, and ties more where they buy most. */
import { lazy, Suspense, useState } from 'react';
import { say } from '../../core/base/units.js';
import { tieFurther } from '../../core/edit/joining.js';
import { figure } from '../../core/plan/catalogue.js';
import type { Line } from '../../core/plan/schema.js';
import type { FurtherTie } from '../../core/wiring/further.js';
import { Asked } from '../../ui/parts/Asked.js';
import { useCatalogue } from '../../session/catalogue.js';
import { usePower } from '../../session/power.js';
import { commit, tell, useSession } from '../../session/session.js';
import { look, useView } from '../../session/view.js';
import { AlongField } from '../../ui/parts/AlongField.js';
import { Button } from '../../ui/parts/Button.js';
import { Part, QuantityField, Select } from '../../ui/parts/controls.js';
import { Num, useUnits } from '../../ui/parts/Num.js';
import type { Wired } from './fence.js';
import { BREAK, LOST_M } from './origins.js';
import { endWords } from './words.js';
import { Where } from './Where.js';

const FedMap = lazy(() => import('./FedMap.js').then((m) => ({ default: m.FedMap })));

export function FedTab({ line, fences }: { line: Line; fences: readonly Wired[] }) {
  return (
    <>
      <Part title="From how many ends it is fed">
        <Suspense fallback={<div className="h-[20rem]" />}>
          <FedMap />
        </Suspense>
        <p className="label mt-1">Press a stretch to ask what its break would cost.</p>
      </Part>
      <IfItBroke line={line} fences={fences} />
      <More fences={fences} />
    </>
  );
}

/** Ties as they were named by the worker, made in the plan. */
function useTie(fences: readonly Wired[]) {
  const lines = useSession((s) => s.plan.lines);
  const units = useUnits();
  const placeOf = (t: FurtherTie) =>
    fences.flatMap((f) => f.places).find((p) => p.location === t.location);
  return {
    words(t: FurtherTie): string {
      const place = placeOf(t);
      const end = (name: string) => place?.arriving.find((a) => a.name === name);
      const [a, b] = [end(t.a), end(t.b)];
      if (!place || !a || !b) return '';
      const many = a.line !== b.line;
      return `${endWords(a, lines, units, many)} – ${endWords(b, lines, units, many)}`;
    },
    place: placeOf,
    take(ties: readonly FurtherTie[]) {
      const what = ties.length === 1 ? 'a tie more' : `${ties.length} ties more`;
      commit(what, (d) => {
        // Several at one place are made together.
        for (const location of new Set(ties.map((t) => t.location))) {
          const own = ties.filter((t) => t.location === location);
          const place = placeOf(own[0]!);
          if (place) tieFurther(d, place, own);
        }
      });
      tell(what);
    },
  };
}

function IfItBroke({ line, fences }: { line: Line; fences: readonly Wired[] }) {
  const season = useView((v) => v.season);
  const cursor = useView((v) => v.cursor);
  const report = useSession((s) => s.report?.lines[line.id]);
  const lines = useSession((s) => s.plan.lines);
  const units = useUnits();
  const tie = useTie(fences);
  const live = line.strands.flatMap((s, k) => (s.duty === 'live' ? [k] : []));
  const [picked, setPicked] = useState<number | null>(null);
  const strand = picked !== null && live.includes(picked) ? picked : live[0];
  const run = report?.runs[0];
  const at_m = cursor ?? (run ? Math.round(5 * (run.from_m + run.to_m)) / 10 : 0);
  const key = strand === undefined ? null : `break ${season} ${line.id} ${strand} ${at_m}`;
  const answer = usePower(
    key,
    (api) => api.breakCost(season, { line: line.id, strand: strand!, at_m }),
    `break ${season} ${line.id}`,
  );
  const { value, waiting } = answer;
  if (strand === undefined || !report)
    return (
      <Part title={`If ${line.name} broke`}>
        <p className="label">It has no live strand.</p>
      </Part>
    );
  return (
    <Part title={`If a strand of ${line.name} broke`}>
      <div className="flex flex-wrap items-center gap-x-4 gap-y-2">
        <Select
          label="The strand at"
          value={String(strand)}
          options={live.map((k) => [String(k), say(line.strands[k]!.height_m, 'height', units)])}
          onChange={(k) => setPicked(Number(k))}
        />
        <AlongField
          label="at"
          line={line}
          report={report}
          value={at_m}
          onCommit={(s) => look({ cursor: s })}
        />
      </div>
      <Asked of={answer} doing="Breaking it" className="mt-2" />
      <p className={`mt-2 ${waiting ? 'opacity-60' : ''}`} role="status" data-break>
        {!value && waiting ? null : !value ? (
          'Nothing is fed there.'
        ) : (
          <>
            {value.dark_m > 0.5 ? (
              <>
                <Num value={value.dark_m} q="length" from={LOST_M} /> of live strand would be dead
              </>
            ) : (
              'Nothing would be dead: it is fed from its other end'
            )}
            {'; most is lost on '}
            {lines[value.worst.line]?.name}:{' '}
            <Num value={value.worst.before_V} q="fineVolt" from={BREAK} />
            {' before, '}
            <Num value={value.worst.after_V} q="fineVolt" /> then.
          </>
        )}
      </p>
      {value?.mend ? (
        <p className="mt-1">
          One tie more mends it best: {tie.words(value.mend.tie)}
          {value.mend.dark_m > 0.5 && (
            <>
              , with <Num value={value.mend.dark_m} q="length" /> still dead
            </>
          )}
          , and <Num value={value.mend.worst.after_V} q="fineVolt" /> then.{' '}
          <Button className="small" onClick={() => tie.take([value.mend!.tie])}>
            Tie it
          </Button>
        </p>
      ) : (
        value &&
        value.dark_m > 0.5 && (
          <p className="label mt-1">
            No tie mends that: nothing else that is fed reaches it beyond the break.
          </p>
        )
      )}
    </Part>
  );
}

/** The fewest ties more so that no break costs more than a share. */
function More({ fences }: { fences: readonly Wired[] }) {
  const cat = useCatalogue();
  const lines = useSession((s) => s.plan.lines);
  const tie = useTie(fences);
  const [share, setShare] = useState(figure(cat, 'joins.darkest'));
  const answer = usePower(`stronger ${share}`, (api) => api.stronger(share), 'stronger');
  const { value, waiting } = answer;
  const ties = value?.flatMap((v) => v.ties) ?? [];
  const worst = Math.max(0, ...(value ?? []).map((v) => v.worst_m));
  const left = Math.max(0, ...(value ?? []).map((v) => v.left_m));
  const over = value?.some((v) => v.left_m > v.limit_m + 0.5);
  return (
    <Part title="Ties more, where they buy most">
      <QuantityField
        label="No single break may darken more than"
        q="percent"
        min={0.001}
        max={1}
        value={share}
        width="w-16"
        onCommit={setShare}
      />{' '}
      <span className="label">of the live strand of a fence</span>
      <Asked of={answer} doing="Breaking each stretch in turn" className="mt-2" />
      <p className={`mt-2 ${waiting ? 'opacity-60' : ''}`} role="status" data-more>
        {!value && waiting ? null : !value?.length ? (
          'Nothing is fed.'
        ) : ties.length === 0 ? (
          <>
            {over ? 'No tie helps: ' : 'None is wanted: '}the dearest break costs{' '}
            <Num value={worst} q="length" from={LOST_M} />.
          </>
        ) : (
          <>
            {ties.length === 1 ? 'One tie' : `${ties.length} ties`} more: the dearest break then
            costs <Num value={left} q="length" from={LOST_M} /> instead of{' '}
            <Num value={worst} q="length" />.
          </>
        )}
      </p>
      {ties.length > 0 && (
        <>
          <ul className="mt-1 list-disc pl-5">
            {ties.map((t) => {
              const place = tie.place(t);
              return (
                <li key={`${t.location} ${t.a} ${t.b}`}>
                  {place && (
                    <button
                      className="cursor-pointer underline"
                      onClick={() => look({ line: place.line, cursor: place.at_m, vertex: null })}
                    >
                      {lines[place.line]?.name} <Where line={place.line} at_m={place.at_m} />
                    </button>
                  )}
                  : {tie.words(t)}
                </li>
              );
            })}
          </ul>
          <Button strong className="mt-2" onClick={() => tie.take(ties)}>
            {ties.length === 1 ? 'Tie it' : 'Tie them'}
          </Button>
        </>
      )}
    </Part>
  );
}
