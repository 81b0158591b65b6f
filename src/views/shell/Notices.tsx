import { Dialog } from 'radix-ui';
import type { Proposed } from '../../formats/change.js';
import { dismissRefused, happen, resolveConflict, useSession } from '../../session/session.js';
import { sheet } from '../../ui/keys.js';
import type { Step } from '../steps.js';
import { look, useView } from '../../session/view.js';
import { Button } from '../../ui/parts/Button.js';

const BAR = 'border-stop bg-panel border-b-2 px-3 py-2';

/** What could not be done, what was not taken, what met, and what this browser cannot keep. */
export function Notices() {
  const refused = useSession((s) => s.refused);
  const { conflict, held, refusals, full, pending } = useSession((s) => s.book);
  return (
    <>
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
            {conflict.theirs.map((t) => `“${t.words}”`).join(', ')}.
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

/** Changes as a file, so that what was not taken is not lost. */
function Download({ changes }: { changes: readonly Proposed[] }) {
  const href = `data:application/json;charset=utf-8,${encodeURIComponent(JSON.stringify(changes, null, 1))}`;
  return (
    <a className="button" href={href} download="changes-not-saved.json">
      Download {changes.length === 1 ? 'it' : 'them'}
    </a>
  );
}

/** The sheet of keys. */
export function HelpSheet({ steps }: { steps: readonly Pick<Step, 'key' | 'name'>[] }) {
  const open = useView((v) => v.help);
  return (
    <Dialog.Root open={open} onOpenChange={(help) => look({ help })}>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-40 bg-black/40" />
        <Dialog.Content className="bg-panel border-ink fixed top-1/2 left-1/2 z-50 max-h-[88vh] w-[560px] max-w-[94vw] -translate-x-1/2 -translate-y-1/2 overflow-y-auto border p-5">
          <Dialog.Title className="heading mb-3">Keys</Dialog.Title>
          <Dialog.Description className="sr-only">One letter a tool</Dialog.Description>
          <table className="sheet-table">
            <tbody>
              {sheet(steps).map(({ shown, words }) => (
                <tr key={shown}>
                  <td className="figure">{shown}</td>
                  <td>{words}</td>
                </tr>
              ))}
            </tbody>
          </table>
          <p className="label mt-3">
            A small mark beside a number says where it comes from: ƒ worked out, ◇ a default, ●
            measured on the drawing. Nothing here says that a fence is safe or lawful: check local
            codes, the maker's instructions, and ask licensed electricians and engineers.
          </p>
          <div className="mt-3 flex gap-2">
            <Dialog.Close className="button">Close</Dialog.Close>
            <Button onClick={() => look({ help: false, tour: 0 })}>Take the tour</Button>
          </div>
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}
