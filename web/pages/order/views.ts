import type { FaceView } from './FaceStage.vue';

export type View = FaceView | 'as-cut';

export const VIEWS: readonly (readonly [View, string])[] = [
  ['face', 'Face'],
  ['apart', 'Films apart'],
  ['cut-lines', 'Cut lines'],
  ['as-cut', 'As cut'],
];
