import { reactive } from 'vue';
import type { Bounds } from '../../core/geometry/bounds';

/** A window onto a drawing in mm: screen = mm × scale + (x, y). */
export interface Viewport {
  scale: number;
  x: number;
  y: number;
}

const SMALLEST = 0.005;
const LARGEST = 400;

export const createViewport = (): Viewport => reactive({ scale: 1, x: 0, y: 0 });

/** px kept free around what is shown. */
export interface Free {
  readonly top: number;
  readonly right: number;
  readonly bottom: number;
  readonly left: number;
}

export const freeAround = (px: number): Free => ({ top: px, right: px, bottom: px, left: px });

/** Shows the whole of a box in the middle of what is not kept free. */
export function fitTo(view: Viewport, box: Bounds, width: number, height: number, free: Free): void {
  const [left, right] = [free.left, width - free.right];
  const [top, bottom] = [free.top, height - free.bottom];
  const w = Math.max(box.maxX - box.minX, 1e-3);
  const h = Math.max(box.maxY - box.minY, 1e-3);
  view.scale = Math.min(LARGEST, Math.max(SMALLEST, Math.min((right - left) / w, (bottom - top) / h)));
  view.x = (left + right) / 2 - ((box.minX + box.maxX) / 2) * view.scale;
  view.y = (top + bottom) / 2 - ((box.minY + box.maxY) / 2) * view.scale;
}

/** Zooms so that the point under the pointer stays where it is. */
export function zoomAt(view: Viewport, factor: number, px: number, py: number): void {
  const scale = Math.min(LARGEST, Math.max(SMALLEST, view.scale * factor));
  view.x = px - ((px - view.x) * scale) / view.scale;
  view.y = py - ((py - view.y) * scale) / view.scale;
  view.scale = scale;
}
