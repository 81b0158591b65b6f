/** What the newest round of a unit says: the likeliest explanation, why, what else it may be. */
import { FAULT_KINDS } from '../../core/faults/kinds.js';
import { round } from '../../core/base/numbers.js';
import { say } from '../../core/base/units.js';
import { KIND_WHY, KIND_WORDS } from '../../core/rounds/verdict.js';
import { Asked } from '../../ui/parts/Asked.js';
import { useCatalogue } from '../../session/catalogue.js';
import { useSession } from '../../session/session.js';
import { Part } from '../../ui/parts/controls.js';
import { useUnits } from '../../ui/parts/Num.js';
import { dayName } from '../build/built.js';
import type { Said } from '../../core/rounds/said.js';
import { usePointName, useSaid, valueWords, type Log, type Round } from './rounds.js';

export const percent = (p: number): string =>
  p > 0.99 ? 'over 99 %' : p < 0.01 ? 'under 1 %' : `${Math.round(100 * p)} %`;
/** What is less likely than this is not worth a word. */
const SLIGHT = 0.04;
/** So many readings are wanted before anything is said. */
const FEW = 3;

export function SaidCard({ unit, round: of, log }: { unit: { id: string; name: string }; round: Round; log: Log }) {
  const answer = useSaid(unit.id, of, log);
  const { value: said, waiting, fault } = answer;
  const title = `What the round of ${dayName(of.time.slice(0, 10))} says of ${unit.name}`;
  if (of.readings.length < FEW)
    return (
      <Part title={title}>
        <p>{of.readings.length === 1 ? 'One reading' : `${of.readings.length} readings`} so far: {FEW} at least are wanted, the unit’s own terminal and its earth among them.</p>
      </Part>
    );
  if (!said) return <Part title={title}>{waiting ? <Asked of={answer} doing="Weighing what was read" /> : <p>Nothing of it can be compared with the plan.</p>}</Part>;
  return (
    <Part title={title}>
      {fault !== null && <Asked of={answer} doing="Weighing what was read" />}
      <div data-said={said.likeliest} aria-busy={waiting} className={waiting ? 'opacity-60' : ''}>
        <SaidWords said={said} round={of} />
        <Odd ids={said.odd} log={log} />
      </div>
    </Part>
  );
} // prettier-ignore

/** The likeliest explanation, why, and what else it may be. */
export function SaidWords({ said, round: of }: { said: Said; round: Pick<Round, 'season'> }) {
  const cat = useCatalogue();
  const others = FAULT_KINDS.filter((k) => k !== said.likeliest && said.kinds[k] > SLIGHT).sort((a, b) => said.kinds[b] - said.kinds[a]);
  const placed = said.likeliest === 'leak' || said.likeliest === 'joint' || said.likeliest === 'break';
  return (
    <>
        <p className="text-[1.15rem]">
          {said.likeliest === 'none' ? '✓' : '△'} <strong>Likely {KIND_WORDS[said.likeliest]}</strong>, {percent(said.kinds[said.likeliest])}
          {said.likeliest === 'growth' && `: leakage about ${round(said.factor.growth, 1)} times that of “${cat.seasons[of.season]!.name}”`}
          {said.likeliest === 'earth' && `: its resistance about ${round(said.factor.earth, 0)} times what the plan reckons`}
          {said.likeliest === 'unit' && `: about ${Math.round(100 * said.factor.unit)} % of its plate comes out`}.
        </p>
        <p>{KIND_WHY[said.likeliest]}</p>
        {placed && <Stretches said={said} />}
        {others.length > 0 && (
          <p className="label">Or {others.map((k) => `${KIND_WORDS[k]}, ${percent(said.kinds[k])}`).join('; ')}.</p>
        )}
        {said.several && <p>△ One fault alone explains this badly: there may be several, or a reading is wrong.</p>}
        <p className="label">
          {said.count} readings weighed, by Bayes, against the plan in “{cat.seasons[of.season]!.name}”
          {said.knownBy > 0 ? ` as ${said.knownBy} earlier readings on days like that have shown it` : ''}: docs/model.md, Rounds.
        </p>
    </>
  );
} // prettier-ignore

function Stretches({ said }: { said: Said }) {
  const lines = useSession((s) => s.plan.lines);
  const units = useUnits();
  const shown = said.stretches.slice(0, 4);
  return (
    <p data-stretches>
      Four times of five it lies on{' '}
      {shown.map((s) => `${lines[s.line]?.name ?? s.line} from ${say(s.from_m, 'along', units)} to ${say(s.to_m, 'along', units)} (${percent(s.p)})`).join('; ')}
      {said.stretches.length > shown.length && `; and ${said.stretches.length - shown.length} more`}.
    </p>
  );
} // prettier-ignore

/** Readings that fit nothing: said, and not averaged away. */
function Odd({ ids, log }: { ids: readonly string[]; log: Log }) {
  const name = usePointName();
  const units = useUnits();
  const all = log.points.flatMap((p) => (log.at.get(p.key) ?? []).filter((r) => ids.includes(r.id)).map((r) => `${name(p)} (${valueWords(r.kind, r.value, units)})`));
  if (all.length === 0) return null;
  return <p data-odd>△ These do not fit the rest: {all.join('; ')}. Read them again.</p>;
} // prettier-ignore
