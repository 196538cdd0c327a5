/** Handles on a stage, one of which may be dragged: moved when it is let go, or by arrow keys. */
import { ref } from 'vue';
import { arrowStep } from './arrowStep';
import type { Viewport } from './viewport';

/** A drag so short is a click, px. */
const LEAST = 2;

/**
 * @param at where the stage is
 * @param move moves a handle so far, mm
 * @param altStep mm: with Alt held it is dragged in such steps; missing: Alt does nothing
 */
export function useHandleDrag(
  at: () => Viewport,
  move: (index: number, dx: number, dy: number) => void,
  altStep?: number,
) {
  const drag = ref<{ index: number; x: number; y: number; dx: number; dy: number }>();
  const isHeld = (index: number): boolean => drag.value?.index === index;
  /** How far a handle is dragged now, mm. */
  const by = (index: number): readonly [number, number] =>
    drag.value && isHeld(index) ? [drag.value.dx, drag.value.dy] : [0, 0];
  const letGo = (): void => void (drag.value = undefined);
  /** For `v-on` of a handle. */
  const on = (index: number) => ({
    pointerdown: (event: PointerEvent): void => {
      event.stopPropagation();
      if (event.button !== 0) return;
      (event.currentTarget as HTMLElement).setPointerCapture(event.pointerId);
      drag.value = { index, x: event.clientX, y: event.clientY, dx: 0, dy: 0 };
    },
    pointermove: ({ clientX, clientY, altKey }: PointerEvent): void => {
      if (!drag.value) return;
      const mm = (px: number): number => {
        const far = px / at().scale;
        return altKey && altStep ? Math.round(far / altStep) * altStep : far;
      };
      const { x, y } = drag.value;
      drag.value = { ...drag.value, dx: mm(clientX - x), dy: mm(clientY - y) };
    },
    pointerup: (): void => {
      const done = drag.value;
      letGo();
      if (done && Math.hypot(done.dx, done.dy) * at().scale >= LEAST) move(done.index, done.dx, done.dy);
    },
    pointercancel: letGo,
    keydown: (event: KeyboardEvent): void => {
      const step = arrowStep(event);
      if (!step) return;
      move(index, ...step);
      event.preventDefault();
      event.stopPropagation();
    },
  });
  return { isHeld, by, on };
}
