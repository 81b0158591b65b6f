/** Thing by thing in the order in which one walks: passed, failed, noted, with a photo; what failed becomes work. */
import { useState } from 'react';
import { CHECKS, newest, type Check as Thing } from '../../core/build/inspect.js';
import { say } from '../../core/base/units.js';
import { usePower } from '../../session/power.js';
import { happened, takeBack } from '../../session/records.js';
import { useSession } from '../../session/session.js';
import { Asked } from '../../ui/parts/Asked.js';
import { Button } from '../../ui/parts/Button.js';
import { Caution, Check, Choice, Select } from '../../ui/parts/controls.js';
import { WordsField } from '../../ui/parts/bookFields.js';
import { useHappened, type InspectionRecord } from './built.js';
import { Photo, PhotoField } from './PhotoField.js';

const RESULTS = [['pass', 'passed'], ['fail', 'failed'], ['note', 'note']] as const; // prettier-ignore
const UNITS = 'units';

export function InspectTab() {
  const answer = usePower('checks', (api) => api.checks());
  const { value: checks } = answer;
  const { seen } = useHappened();
  const lines = useSession((s) => s.plan.lines);
  const [line, setLine] = useState('');
  const [open, setOpen] = useState(false);
  if (!checks) return <Asked of={answer} doing="Listing what there is to look at" />;
  const last = newest(seen);
  const own = new Set(checks.map((c) => c.line ?? UNITS));
  const chosen = own.has(line) ? line : [...own][0];
  const all = checks.filter((c) => (c.line ?? UNITS) === chosen);
  const shown = open ? all.filter((c) => last.get(c.key)?.result !== 'pass') : all;
  const count = (r: string) => checks.filter((c) => last.get(c.key)?.result === r).length;
  return (
    <div className="max-w-[56em]">
      <Caution>
        Switch off, lock the switch and prove it dead before you touch the fence. This list says what to look at; whether
        the fence is safe and lawful is for local codes and licensed people to say.
      </Caution>
      <div className="my-3 flex flex-wrap items-center gap-x-5 gap-y-2">
        <Select
          label="On"
          value={chosen ?? ''}
          width="max-w-[14rem]"
          options={[...own].map((id) => [id, id === UNITS ? 'units and earth' : (lines[id]?.name ?? id)] as const)}
          onChange={setLine}
        />
        <Check label="only what has not passed" checked={open} onChange={setOpen} />
        <span role="status" data-inspected>
          {count('pass')} passed, {count('fail')} failed, {checks.length - count('pass') - count('fail')} still to be looked at,
          of {checks.length}
        </span>
      </div>
      {shown.length === 0 && <p>✓ All of it has passed.</p>}
      <ol>
        {shown.map((c) => (
          <Row key={c.key} thing={c} last={last.get(c.key) as InspectionRecord | undefined} />
        ))}
      </ol>
    </div>
  );
} // prettier-ignore

function Row({ thing, last }: { thing: Thing; last: InspectionRecord | undefined }) {
  const units = useSession((s) => s.plan.units);
  const put = (part: { result?: InspectionRecord['result']; note?: string; photo?: string }) =>
    happened('inspections', {
      check: thing.key,
      line: thing.line,
      at_m: thing.line === null ? null : thing.at_m,
      spot: thing.line === null ? thing.where : null,
      result: part.result ?? last?.result ?? 'note',
      note: part.note ?? last?.note ?? '',
      photo: part.photo ?? last?.photo ?? null,
    });
  const name = `${CHECKS[thing.check]}, ${thing.where}`;
  return (
    <li className="border-rule border-b py-2" data-check={thing.key}>
      <div className="flex flex-wrap items-center justify-between gap-x-4 gap-y-1">
        <span className="min-w-0 flex-1 basis-64">
          <strong>{CHECKS[thing.check]}</strong>{' '}
          <span className="label">
            {thing.where}
            {thing.line !== null && thing.where !== 'along the line' && `, ${say(thing.at_m, 'along', units)}`}
          </span>
          <br />
          {thing.want}
        </span>
        <Choice
          label={name}
          value={last?.result ?? ('' as 'pass')}
          options={RESULTS}
          onChange={(result) => put({ result })}
        />
      </div>
      {last && (
        <div className="mt-1 flex flex-wrap items-center gap-3">
          <WordsField
            label="note"
            spoken={`Note on ${name}`}
            value={last.note}
            onCommit={(note) => note !== last.note && put({ note })}
          />
          <PhotoField label={`Photo of ${name}`} onTaken={(photo) => put({ photo })} />
          {last.photo && <Photo hash={last.photo} words={`Photo of ${name}`} />}
          <Button className="small" onClick={() => takeBack('inspections', last)}>
            take back
          </Button>
          {last.result === 'fail' && <span className="label">✗ It stands among the tasks now.</span>}
        </div>
      )}
    </li>
  );
} // prettier-ignore
