import type { Proposed } from '../../formats/change.js';
import { dismissRefused, happen, resolveConflict, useSession } from '../../session/session.js';
import { useReach } from '../../session/reach.js';
import { signInAddress, useVisitor } from '../../session/visitor.js';
import { Button } from '../../ui/parts/Button.js';

const dateTime = (iso: string) =>
  new Date(iso).toLocaleString([], { dateStyle: 'medium', timeStyle: 'short' });

const BAR = 'border-stop bg-panel border-b-2 px-3 py-2';

/** What could not be done, what was not taken, what met, and what this browser cannot keep. */
export function Notices() {
  const refused = useSession((s) => s.refused);
  const { conflict, held, refusals, full, pending } = useSession((s) => s.book);
  return (
    <>
      <Reach />
      {refused && (
        <div role="alert" className={`${BAR} flex items-center gap-3`}>
          <span className="flex-1">{refused}</span>
          <Button onClick={dismissRefused}>Understood</Button>
        </div>
      )}
      {full && (
        <div role="alert" className={BAR}>
          This browser has no room left to keep changes in. Each is sent to the server at once
          {pending.length > 0 ? '; do not close this tab before it says saved.' : '.'}
        </div>
      )}
      {held && (
        <div role="alert" className={BAR}>
          <p>
            <strong>Not saved:</strong> {held.reason} (the server answered {held.status}). It is
            kept, with {pending.length - 1} more behind it.
          </p>
          <div className="mt-1 flex gap-2">
            <Button onClick={() => happen({ type: 'retry' })}>Try again</Button>
            <Download changes={pending.map((p) => p.change)} />
            <Button onClick={() => happen({ type: 'giveUp' })}>Give this one up</Button>
          </div>
        </div>
      )}
      {refusals.length > 0 && (
        <div role="alert" className={BAR}>
          <p className="font-semibold">Not taken, and off the screen:</p>
          <ul className="list-inside list-disc">
            {refusals.map((r) => (
              <li key={r.change.changeId}>
                {r.change.words}: {r.reason}
              </li>
            ))}
          </ul>
          <div className="mt-1 flex gap-2">
            <Download changes={refusals.map((r) => r.change)} />
            <Button onClick={() => happen({ type: 'dismiss' })}>Understood</Button>
          </div>
        </div>
      )}
      {conflict && (
        <div role="alert" className={BAR}>
          <p className="font-semibold">Two changes met at the same place.</p>
          <p>
            Here: “{conflict.mine.words}”. Elsewhere meanwhile:{' '}
            {conflict.theirs.map((t) => `“${t.words}”${t.who ? ` by ${t.who}` : ''}`).join(', ')}.
          </p>
          <div className="mt-1 flex gap-2">
            <Button onClick={() => resolveConflict(true)}>Keep mine, on top of theirs</Button>
            <Button onClick={() => resolveConflict(false)}>Keep theirs</Button>
          </div>
        </div>
      )}
    </>
  );
}

/** That what is shown is not of now, that somebody has to sign in, that there is little room. */
function Reach() {
  const { away, asOf, tight } = useReach();
  const out = useVisitor((v) => v.out);
  return (
    <>
      {out && (
        <div role="alert" className={`${BAR} flex flex-wrap items-center gap-3`}>
          <span className="flex-1">
            You are signed out here. What you do is kept in this browser and goes out once you have signed in.
          </span>
          <a className="button button-strong" href={signInAddress()}>
            Sign in
          </a>
        </div>
      )}
      {asOf && (
        <div role="status" className={BAR} data-as-of={asOf}>
          As of {dateTime(asOf)}:{' '}
          {away ? 'the server cannot be reached' : 'it is being brought up to date'}. What you do is kept here and goes out by
          itself.
        </div>
      )}
      {tight !== null && (
        <div role="alert" className={BAR}>
          This browser has room for {Math.floor(tight / 1e6)} MB more. When it is full, no photo and no change can be kept here
          without the server: make room on this device, or let it send what waits.
        </div>
      )}
    </>
  );
} // prettier-ignore

/** Changes as a file, so that what was not taken is not lost. */
function Download({ changes }: { changes: readonly Proposed[] }) {
  const href = `data:application/json;charset=utf-8,${encodeURIComponent(JSON.stringify(changes, null, 1))}`;
  return (
    <a className="button" href={href} download="changes-not-saved.json">
      Download {changes.length === 1 ? 'it' : 'them'}
    </a>
  );
}
