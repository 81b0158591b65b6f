/** A worker as the page sees it, at the other end of a channel in the same program. */
import * as Comlink from 'comlink';

/** @param sent called before each message that the page sends */
export const workerHere = (api: object, sent: () => void = () => undefined) =>
  class extends EventTarget {
    onerror = null;
    onmessageerror = null;
    private readonly port: MessagePort;
    private readonly other: MessagePort;
    constructor() {
      super();
      const { port1, port2 } = new MessageChannel();
      [this.port, this.other] = [port1, port2];
      port1.onmessage = ({ data }) => this.dispatchEvent(new MessageEvent('message', { data }));
      Comlink.expose(api, port2 as unknown as Comlink.Endpoint);
      port2.postMessage({ ready: true });
    }
    postMessage(data: unknown, transfer: Transferable[] = []) {
      sent();
      this.port.postMessage(data, transfer);
    }
    terminate() {
      this.port.close();
      this.other.close();
    }
  };
