import type { FaceView } from './FaceStage.vue';

export type View = FaceView | 'on-film' | 'as-cut';

export const VIEWS: readonly (readonly [View, string])[] = [
  ['face', 'Face'],
  ['apart', 'Films apart'],
  ['on-film', 'On the film'],
  ['cut-lines', 'Cut lines'],
  ['as-cut', 'As cut'],
];
