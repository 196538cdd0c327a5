/** ms of drawing in one frame, for all stages of a page together: the page stays awake however much there is to draw. */
const SLICE = 6;

let stamp = -1;
let end = 0;

/** When this frame's drawing has to end; all that ask within one frame share it. */
export function sliceEnd(frame: number): number {
  if (frame !== stamp) {
    stamp = frame;
    end = performance.now() + SLICE;
  }
  return end;
}
