/** The front panel of a simulated cutter: what lies in it, and what a person's hands do to it. */
import { z } from 'zod';
import type { Machine, MachineStatus } from './machine';
import { PANEL_PAGE } from './panelPage';
import type { Routes } from './panelServer';
import { jsonOf, Refused } from './panelServer';
import type { Print } from './print';
import { lay, STRAIGHT } from './print';
import type { Tray } from './prints';
import { fromFilm, onFilm } from './spec';

const filmSchema = z.object({
  name: z.string().max(100).default('film'),
  width: z.number().min(50).max(3000),
  length: z.number().min(100).max(100_000).default(25_000),
  ends: z.number().min(0).max(100_000).optional(),
  toughness: z.number().min(5).max(500).default(60),
  white: z.number().min(0.02).max(1).optional(),
});

/** What a person does to the machine with a screwdriver, or puts into its first holder. */
const setUpSchema = z.strictObject({
  sensorOffset: z.tuple([z.number().min(-200).max(200), z.number().min(-200).max(200)]).optional(),
  trueness: z.tuple([z.number().min(0.9).max(1.1), z.number().min(0.9).max(1.1)]).optional(),
  holder: z
    .discriminatedUnion('kind', [
      z.strictObject({
        kind: z.literal('knife'),
        /** Missing, both: the blade that was taken out is put back. */
        bladeOffset: z.number().min(0).max(3).optional(),
        wear: z.number().min(0).max(2).optional(),
      }),
      z.strictObject({ kind: z.literal('pen') }),
    ])
    .optional(),
});

const slipSchema = z.strictObject({
  turn: z.number().min(-20).max(20).default(0),
  x: z.number().min(-300).max(300).default(0),
  y: z.number().min(-300).max(300).default(0),
});
const knobSchema = z.object({ force: z.number().min(0).max(1000) });

/** How a print is laid into a cutter, and what became of it on the way. */
const laySchema = z.object({
  print: z.number().int(),
  turn: z.number().min(-360).max(360).default(0),
  shift: z.tuple([z.number().min(-200).max(200), z.number().min(-200).max(200)]).default([0, 0]),
  stretch: z.tuple([z.number().min(0.5).max(2), z.number().min(0.5).max(2)]).default([1, 1]),
  bow: z.number().min(-20).max(20).default(0),
  mirrored: z.boolean().default(false),
  ink: z.number().min(0).max(1).default(1),
  ground: z.number().min(0.02).max(1).default(STRAIGHT.ground),
  grain: z.number().min(0).max(0.5).default(0),
  /** What lies over it: x, y and radius, mm on the page. */
  covers: z
    .array(z.tuple([z.number(), z.number(), z.number()]))
    .max(20)
    .default([]),
  /** Where the operator puts the head: a place of the page, met to a few millimetres. */
  head: z.tuple([z.number(), z.number()]).optional(),
});

/** @param cutLine breaks its line to whoever sends to it */
export function cutterPanel(machine: Machine, tray: Tray, cutLine: () => void): Routes {
  const bladeNow = () => {
    const [tool] = machine.spec().tools;
    return tool.kind === 'knife' ? { ...tool, wear: machine.wear() } : undefined;
  };
  let blade = bladeNow();
  const setUp = ({ sensorOffset, trueness, holder }: z.infer<typeof setUpSchema>): void => {
    const { sensor, tools } = machine.spec();
    blade = bladeNow() ?? blade;
    const put = holder?.kind === 'knife' ? { ...NEW_BLADE, ...blade, ...holder } : holder;
    machine.setUp({
      ...(sensor && sensorOffset && { sensor: { ...sensor, offset: sensorOffset } }),
      ...(trueness && { trueness }),
      ...(put && { tools: [put, ...tools.slice(1)] }),
    });
  };
  const after = (act: () => void): MachineStatus => {
    act();
    return machine.status();
  };
  return {
    'GET /': () => PANEL_PAGE,
    'GET /status': () => machine.status(),
    'GET /record': () => ({ lines: machine.strokes() }),
    'GET /on-print': () => ({ lines: onPrint(machine) }),
    'GET /head-on-print': () => headOnPrint(machine),
    'GET /tray': () => [...tray].map(([id, { name }]) => ({ id, name })),
    'POST /switch-off': () =>
      after(() => {
        cutLine();
        machine.drop();
      }),
    'POST /pull-cable': () => after(cutLine),
    'POST /slip': async (request) => {
      const slip = slipSchema.safeParse(await jsonOf(request));
      if (!slip.success) throw new Refused(400, 'film slips by a few mm and degrees');
      return after(() => machine.slip(slip.data));
    },
    'POST /unload': () => after(() => machine.load(undefined)),
    'POST /load': async (request) => {
      const film = filmSchema.safeParse(await jsonOf(request));
      if (!film.success) throw new Refused(400, 'the film needs a width in mm');
      return after(() => machine.load(film.data));
    },
    'POST /load-print': async (request) => {
      const laid = laySchema.safeParse(await jsonOf(request));
      const print = laid.success ? tray.get(laid.data.print)?.print : undefined;
      if (!laid.success || !print) throw new Refused(400, 'there is no such print in the tray');
      return after(() => layPrint(machine, print, laid.data));
    },
    'GET /set-up': () => {
      const { sensor, tools, trueness = [1, 1] } = machine.spec();
      return { sensorOffset: sensor?.offset ?? null, trueness, holder: tools[0].kind, wear: machine.wear() };
    },
    'POST /set-up': async (request) => {
      const set = setUpSchema.safeParse(await jsonOf(request));
      if (!set.success) throw new Refused(400, 'the machine cannot be set up so');
      return after(() => setUp(set.data));
    },
    'POST /knob': async (request) => {
      const knob = knobSchema.safeParse(await jsonOf(request));
      if (!knob.success) throw new Refused(400, 'the force is a number of g');
      return after(() => machine.turnKnob(knob.data.force));
    },
  };
}

const NEW_BLADE = { kind: 'knife', bladeOffset: 0.25, wear: 0 } as const;

function layPrint(
  machine: Machine,
  print: Print,
  { print: _id, head, ...lie }: z.infer<typeof laySchema>,
): void {
  const loaded = lay(print, lie);
  machine.load({ name: 'print', width: print.height, length: print.width, toughness: 60, print: loaded });
  if (!head) return;
  const [x, y] = fromFilm(machine.spec(), print.height, ...loaded.onFilm(...head));
  machine.put({ x, y });
}

/** What was cut as it lies on the print, mm on the page. */
function onPrint(machine: Machine): number[][] {
  const { film } = machine.status();
  const { print } = film ?? {};
  if (!film || !print) return [];
  return machine
    .strokes()
    .map(({ points }) =>
      points.flatMap((_, i) =>
        i % 2 === 0 ? [...print.toPage(...onFilm(machine.spec(), film, points[i], points[i + 1]))] : [],
      ),
    );
}

/** What an operator sees beneath the pointer: a place of the page; null without a print. */
function headOnPrint(machine: Machine): readonly number[] | null {
  const { film, x, y } = machine.status();
  return film?.print ? film.print.toPage(...onFilm(machine.spec(), film, x, y)) : null;
}
