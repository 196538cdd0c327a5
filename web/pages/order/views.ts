import type { PlanView } from '../../workers/packed';
import type { FaceView } from './FaceStage.vue';

export type View = FaceView | 'on-film' | 'sheet' | 'play' | 'as-cut';

export const VIEWS: readonly (readonly [View, string])[] = [
  ['face', 'Face'],
  ['apart', 'Films apart'],
  ['on-film', 'On the film'],
  ['sheet', 'Sheet'],
  ['cut-lines', 'Cut lines'],
  ['play', 'Play it'],
  ['as-cut', 'As cut'],
];

/** By the number keys, from 1. */
export const KEYED: readonly View[] = ['face', 'apart', 'on-film', 'cut-lines', 'as-cut', 'sheet', 'play'];

/** Views that have something to show: of what is all printed none of film, of what is all cut from film no sheet. */
export function isShown(view: View, plan: Pick<PlanView, 'strips' | 'printed'> | undefined): boolean {
  if (view === 'sheet') return plan?.printed !== undefined;
  if (view === 'play') return plan !== undefined && (plan.strips.length > 0 || plan.printed !== undefined);
  if (view === 'on-film' || view === 'apart') return !plan?.printed || plan.strips.length > 0;
  return true;
}
