import { Dialog } from 'radix-ui';
import { look, useView } from '../../session/view.js';
import { Button } from '../../ui/parts/Button.js';
import { sheet } from '../../ui/keys.js';
import type { Step } from '../steps.js';

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
