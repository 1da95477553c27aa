// The page's workers in the process of the test: code that answers behind a channel, as in a browser.
import { expose } from 'comlink'

/** A worker that serves what it is given over a channel, until it is ended. */
export class StandIn extends EventTarget {
  isEnded = false
  private readonly outside: MessagePort
  private readonly inside: MessagePort

  constructor(serve: (inside: MessagePort) => unknown) {
    super()
    const { port1, port2 } = new MessageChannel()
    this.outside = port1
    this.inside = port2
    // Of the document that the worker belongs to, which may be gone when a message comes.
    const { MessageEvent } = globalThis
    port1.addEventListener('message', ({ data }) => this.dispatchEvent(new MessageEvent('message', { data })))
    port1.start()
    serve(port2)
  }

  postMessage(message: unknown, transfer: Transferable[] = []): void {
    this.outside.postMessage(message, transfer)
  }

  terminate(): void {
    this.isEnded = true
    this.inside.close()
    this.outside.close()
  }
}

/** A worker that answers with what an object offers. */
export const answeringWith = (api: object): StandIn => new StandIn((inside) => expose(api, inside))
