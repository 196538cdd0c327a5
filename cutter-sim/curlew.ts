import type { LoadedFilm, MachineSpec } from './machine';

/** The demo shop's roll cutter as a machine, with a slightly used blade. */
export const CURLEW_SPEC: MachineSpec = {
  name: 'Curlew',
  widestRoll: 1370,
  rollerMargin: 12.7,
  bufferBytes: 4096,
  acceleration: 8000,
  travelSpeed: 60,
  bladeOffset: 0.25,
  wear: 0.05,
};

export const DAMSON_ROLL: LoadedFilm = { name: 'Damson', width: 610, length: 22_000, toughness: 60 };
