/** In the place of workers: nobody is there. What computes is tested where it is. */
export default class NoWorker {
  onmessage = null;
  postMessage(): void {}
  addEventListener(): void {}
  removeEventListener(): void {}
  terminate(): void {}
}
