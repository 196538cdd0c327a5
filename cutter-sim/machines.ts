/** The demo shop's four cutters as machines, each with the blade that is really in it, and what lies in it at first. */
import type { LoadedFilm, MachineSpec } from './spec';

const step = 0.025;

export const CURLEW_SPEC: MachineSpec = {
  name: 'Curlew',
  across: 1370,
  along: Infinity,
  edges: { far: 12.7, near: 12.7 },
  axes: { step, feedAxis: 'x', feedReversed: false },
  bufferBytes: 4096,
  acceleration: 8000,
  travelSpeed: 60,
  ownSpeed: 30,
  takesSpeed: true,
  forceKnob: null,
  tools: [{ kind: 'knife', bladeOffset: 0.25, wear: 0.05 }],
  sensor: { offset: [10, 0.8], spot: 0.3, noise: 0.02 },
  trueness: [1.0006, 0.9998],
};

/** An older one: force is a knob at its front. */
export const HERON_SPEC: MachineSpec = {
  name: 'Heron',
  across: 640,
  along: Infinity,
  edges: { far: 12.7, near: 9 },
  axes: { step, feedAxis: 'y', feedReversed: false, acrossReversed: true },
  bufferBytes: 1024,
  acceleration: 4000,
  travelSpeed: 40,
  ownSpeed: 25,
  takesSpeed: true,
  forceKnob: 85,
  tools: [{ kind: 'knife', bladeOffset: 0.25, wear: 0.1 }],
};

export const PLOVER_SPEC: MachineSpec = {
  name: 'Plover',
  across: 320,
  along: Infinity,
  edges: { far: 8, near: 8 },
  axes: { step: 0.05, feedAxis: 'x', feedReversed: true },
  bufferBytes: 512,
  acceleration: 2500,
  travelSpeed: 30,
  ownSpeed: 15,
  takesSpeed: true,
  forceKnob: null,
  tools: [{ kind: 'knife', bladeOffset: 0.3, wear: 0 }],
  sensor: { offset: [-8, 0.6], spot: 0.4, noise: 0.03 },
  trueness: [1.0012, 1.0004],
};

export const SALTPAN_SPEC: MachineSpec = {
  name: 'Saltpan',
  across: 600,
  along: 900,
  edges: { far: 5, near: 5 },
  axes: { step: 0.01, feedAxis: 'y', feedReversed: true, acrossReversed: true },
  bufferBytes: 8192,
  acceleration: 6000,
  travelSpeed: 50,
  ownSpeed: 20,
  takesSpeed: true,
  forceKnob: null,
  tools: [{ kind: 'knife', bladeOffset: 0.25, wear: 0 }, { kind: 'wheel' }],
  sensor: { offset: [0.5, -12], spot: 0.3, noise: 0.015 },
  trueness: [0.9999, 1.0001],
};

const film = (name: string, width: number, length: number, toughness = 60): LoadedFilm => ({
  name,
  width,
  length,
  toughness,
});

export const DAMSON_ROLL = film('Damson', 610, 22_000);

/** By the cutter's id. */
export const DEMO_MACHINES: Readonly<
  Record<string, { readonly spec: MachineSpec; readonly film: LoadedFilm | undefined }>
> = {
  curlew: { spec: CURLEW_SPEC, film: DAMSON_ROLL },
  heron: { spec: HERON_SPEC, film: film('Tide blue', 610, 14_000) },
  plover: { spec: PLOVER_SPEC, film: undefined },
  saltpan: { spec: SALTPAN_SPEC, film: film('Dial card', 580, 880, 150) },
};
