/** Letting a finding be, with a note of why and who; it comes back when it becomes worse. */
import { useState, type FormEvent } from 'react';
import type { Finding } from '../../core/report/schema.js';
import { keepHere, keptHere } from '../../session/here.js';
import { dayText } from '../../core/base/locale.js';
import { commit, useSession } from '../../session/session.js';
import { Button } from '../../ui/parts/Button.js';
import { FieldFault } from '../../ui/parts/FieldFault.js';

const WHO = 'anabatic.who';

export function Accept({ finding }: { finding: Finding }) {
  const [open, setOpen] = useState(false);
  const { accepted } = finding;
  const currency = useSession((s) => s.plan.currency);
  if (accepted?.holds)
    return (
      <p>
        Let be{accepted.who && ` by ${accepted.who}`} on {dayText(new Date(accepted.at), currency)}:{' '}
        {accepted.note}{' '}
        <Button
          onClick={() =>
            commit(`took up again: ${finding.title}`, (d) => void delete d.accepted![finding.id])
          }
        >
          Take it up again
        </Button>
      </p>
    );
  return (
    <>
      {accepted && (
        <p>
          It was let be{accepted.who && ` by ${accepted.who}`} ({accepted.note}) and has become
          worse since.
        </p>
      )}
      {open ? (
        <AcceptForm finding={finding} onDone={() => setOpen(false)} />
      ) : (
        <button className="label cursor-pointer underline" onClick={() => setOpen(true)}>
          let it be, with a note
        </button>
      )}
    </>
  );
}

function AcceptForm({ finding, onDone }: { finding: Finding; onDone: () => void }) {
  const [note, setNote] = useState('');
  const [who, setWho] = useState(() => keptHere(WHO, ''));
  const [asked, setAsked] = useState(false);
  const take = (event: FormEvent) => {
    event.preventDefault();
    setAsked(true);
    if (note.trim() === '') return;
    keepHere(WHO, who.trim());
    commit(`let be: ${finding.title}`, (d) => {
      (d.accepted ??= {})[finding.id] = {
        note: note.trim(),
        who: who.trim(),
        at: new Date().toISOString(),
        kind: finding.kind,
        badness: finding.badness,
      };
    });
    onDone();
  };
  const id = `accept-${finding.id}`;
  return (
    <form className="border-ink flex flex-col gap-1.5 border p-2" onSubmit={take}>
      {finding.kind === 'stop' && (
        <p>This can hurt someone or will not stand. Letting it be does not make it right.</p>
      )}
      <label className="label" htmlFor={id}>
        Why it may stay as it is
      </label>
      <input
        id={id}
        className="field"
        autoFocus
        maxLength={400}
        value={note}
        aria-invalid={asked && note.trim() === ''}
        aria-describedby={`${id}-fault`}
        onChange={(e) => setNote(e.target.value)}
      />
      {asked && note.trim() === '' && (
        <FieldFault id={`${id}-fault`}>A few words are wanted.</FieldFault>
      )}
      <label className="label" htmlFor={`${id}-who`}>
        Who says so
      </label>
      <input
        id={`${id}-who`}
        className="field"
        maxLength={80}
        value={who}
        onChange={(e) => setWho(e.target.value)}
      />
      <div className="flex gap-2">
        <Button strong type="submit">
          Let it be
        </Button>
        <Button onClick={onDone}>Leave it open</Button>
      </div>
    </form>
  );
}
