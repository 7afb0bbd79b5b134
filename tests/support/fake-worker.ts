/** A worker of the browser, in the process of a test: what it is made from answers over a channel of its own. */
import { expose } from 'comlink';

/** In the order in which they were made. */
export const made: FakeWorker[] = [];

/** What the next workers answer with. */
let answering: () => object = () => ({});

export class FakeWorker extends EventTarget {
  private readonly port: MessagePort;
  terminated = false;

  constructor() {
    super();
    const { port1, port2 } = new MessageChannel();
    this.port = port1;
    expose(answering(), port2 as unknown as Parameters<typeof expose>[1]);
    port2.start();
    made.push(this);
    this.port.addEventListener('message', (event) => {
      this.dispatchEvent(new MessageEvent('message', { data: event.data as unknown }));
    });
    this.port.start();
  }

  postMessage(message: unknown, transfer: Transferable[] = []): void {
    this.port.postMessage(message, transfer);
  }

  terminate(): void {
    this.terminated = true;
    this.port.close();
  }
}

/** Has workers of this process made of what `api` gives, none made so far. */
export function fakeWorkers(api: () => object): void {
  made.length = 0;
  answering = api;
  Object.assign(globalThis, { Worker: FakeWorker });
}
