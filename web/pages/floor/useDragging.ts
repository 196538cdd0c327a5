/** A cut that is dragged from lane to lane, or to the shelf, by mouse, pen or finger. */
import { onBeforeUnmount, ref } from 'vue';
import type { Cut } from '../../../contracts/cuts';

/** Where it would go. */
export type Target = { readonly lane: string; readonly before: number | null } | 'shelf';

/** px: a press that moves less is no drag. */
const SLACK = 6;

/** @param drop what is done with it where it was let go */
export function useDragging(drop: (cut: Cut, target: Target) => void) {
  const dragged = ref<{
    readonly cut: Cut;
    readonly x: number;
    readonly y: number;
    readonly target?: Target;
  }>();
  let pressed: { readonly cut: Cut; readonly x: number; readonly y: number } | undefined;

  function press(cut: Cut, event: PointerEvent): void {
    if (event.button !== 0) return;
    pressed = { cut, x: event.clientX, y: event.clientY };
    addEventListener('pointermove', moved);
    addEventListener('pointerup', released);
    addEventListener('pointercancel', left);
    addEventListener('keydown', key);
  }
  function moved({ clientX: x, clientY: y }: PointerEvent): void {
    if (!pressed) return;
    if (!dragged.value && Math.hypot(x - pressed.x, y - pressed.y) < SLACK) return;
    dragged.value = { cut: pressed.cut, x, y, target: targetAt(x, y, pressed.cut.id) };
  }
  function released(): void {
    const last = dragged.value;
    left();
    if (last?.target) drop(last.cut, last.target);
  }
  const key = ({ key: name }: KeyboardEvent): void => void (name === 'Escape' && left());
  function left(): void {
    pressed = dragged.value = undefined;
    removeEventListener('pointermove', moved);
    removeEventListener('pointerup', released);
    removeEventListener('pointercancel', left);
    removeEventListener('keydown', key);
  }
  onBeforeUnmount(left);
  return { dragged, press };
}

function targetAt(x: number, y: number, own: number): Target | undefined {
  const under = document.elementsFromPoint(x, y);
  if (under.some((one) => one.closest('[data-shelf]'))) return 'shelf';
  const lane = under.map((one) => one.closest<HTMLElement>('[data-lane]')).find((one) => one !== null);
  if (!lane) return undefined;
  const waiting = [...lane.querySelectorAll<HTMLElement>('[data-waiting]')].filter(
    (one) => one.dataset.waiting !== String(own),
  );
  const next = waiting.find((one) => {
    const { left, width } = one.getBoundingClientRect();
    return x < left + width / 2;
  });
  return { lane: lane.dataset.lane!, before: next ? Number(next.dataset.waiting) : null };
}
