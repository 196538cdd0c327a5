/** What of each film is cut as one: all of it, its panels and pieces, or the shapes that are to be cut again. */
import type { Again } from '../films/again';
import type { FilmLayer } from '../films/separate';
import type { Finding } from '../findings/finding';
import type { Bounds } from '../geometry/bounds';
import { boundsTouch, emptyBounds, growBounds, heightOf, joinBounds, widthOf } from '../geometry/bounds';
import { componentsOf, liesOn } from '../geometry/nesting';
import type { Region } from '../geometry/region';
import { linesInside, regionArea, regionBounds } from '../geometry/region';
import { formatLength } from '../units/length';
import type { PanelChoices } from './choices';
import { inkedBy } from './inked';
import { panelNumber } from './panelNumber';
import type { Part, WasteLine } from './part';
import type { PanelRoom } from './room';
import { boxFits, fitsIn, keptRoom } from './room';
import { tooLarge } from './seamFindings';
import type { SeamKey } from './seamKeys';
import { keyOutline } from './seamKeys';
import type { Panelling } from './seams';
import { moved } from './seams';
import type { PanelCell } from './split';
import { cellsOf, outlineWithin, within } from './split';

/** How one film is taken apart. */
export interface Apart {
  readonly panelling: Panelling;
  readonly choices: Pick<PanelChoices, 'overlap' | 'overlaps' | 'onTop' | 'skip' | 'numbers'>;
  /** Of this film's own cutter. */
  readonly room: PanelRoom;
  /** The order's number, as it is written into the waste. */
  readonly order?: number;
  /** Only these panels, once each. */
  readonly only?: readonly number[];
}

export interface Parts {
  readonly parts: readonly Part[];
  /** All panels with something on them, those that are not cut too. */
  readonly panels: readonly PanelPart[];
  readonly findings: readonly Finding[];
}

/** A panel of one film, or a piece that is cut whole. */
export interface PanelPart extends Part {
  readonly cell: PanelCell;
  readonly isCut: boolean;
}

/**
 * The parts of a film.
 * @param apart how it is taken apart; undefined: it is cut whole
 * @param again only these shapes, once each, every one a part: no layer marks, no lines; none when no shape lies there
 */
export function panel(layer: FilmLayer, apart: Apart | undefined, again?: Again): Parts {
  if (again) return { parts: shapesAgain(layer, again), panels: [], findings: [] };
  if (!apart) return { parts: [wholeFilm(layer)], panels: [], findings: [] };
  const { choices, panelling, room, only } = apart;
  if (panelling.findings.some(({ severity }) => severity === 'stop'))
    return { parts: [], panels: [], findings: [] };
  const isWanted = ({ number }: PanelCell): boolean =>
    only ? only.includes(number) : !choices.skip.includes(number);
  const made = [...piecesOf(layer, panelling), ...panelsOf(layer, apart)];
  const panels = made.map(({ cell, part }): PanelPart => ({
    ...part,
    ...(only && { copies: 1 }),
    cell,
    isCut: isWanted(cell),
  }));
  return {
    parts: panels.filter(({ isCut }) => isCut),
    panels,
    findings: [
      ...inPanels(layer, keptRoom(room), panels.length),
      ...leftOut(panels, layer.film.name),
      ...withoutNumber(panels, choices, layer.film.name),
      ...panels.flatMap(
        ({ cell, bounds, isCut }) =>
          (isCut ? tooLarge(cell.number, bounds, layer.film.name, room) : undefined) ?? [],
      ),
    ],
  };
}

interface Made {
  readonly cell: PanelCell;
  readonly part: Part;
}

/** What of a film is cut whole. */
function piecesOf(layer: FilmLayer, { pieces }: Panelling): Made[] {
  return pieces.flatMap(({ shapes, bounds }, i): Made[] => {
    const own = shapes.filter(({ film }) => film === layer.film.id);
    if (own.length === 0) return [];
    const cell = { number: i + 1, row: -1, column: i, seen: bounds, cut: bounds };
    const region = own.flatMap((shape) => shape.region);
    const lines = own.flatMap((shape) => shape.lines);
    const box = own.reduce((all, shape) => joinBounds(all, shape.bounds), emptyBounds());
    const part = {
      ...wholeFilm(layer),
      id: `${layer.film.id}@${placeOf(box)}`,
      label: `piece ${i + 1} of ${layer.film.name}`,
      region,
      marks: [],
      lines,
      bounds: box,
      area: regionArea(region),
    };
    return [{ cell, part }];
  });
}

function panelsOf({ film }: FilmLayer, apart: Apart): Made[] {
  const { panelling, choices } = apart;
  const { pieces, seams, beside } = panelling;
  const layer = panelling.layers.find((one) => one.film.id === film.id);
  if (!layer) return [];
  const made = cellsOf(moved(seams, beside[film.id]), choices).flatMap((cell): Made[] => {
    const numbered = { ...cell, number: cell.number + pieces.length };
    const part = panelPart(layer, numbered);
    return part ? [{ cell: numbered, part }] : [];
  });
  const there = new Set(made.map(({ cell: { row, column } }) => `${row} ${column}`));
  return made.map(({ cell, part }) => ({ cell, part: withWaste(part, cell, there, apart) }));
}

/** With its half of each seam's keys, where the neighbour has the other, and its number. */
function withWaste(part: Part, cell: PanelCell, there: ReadonlySet<string>, apart: Apart): Part {
  const { panelling, choices, room, order } = apart;
  const own = (panelling.keys[part.film.id] ?? []).filter((key) => isOn(key, cell, there));
  const keys = own.map((key): WasteLine => ({
    points: keyOutline(key),
    closed: true,
    what: 'key',
    kind: 'kiss',
  }));
  const bounds = keys.reduce((box, { points }) => growBounds(box, points), part.bounds);
  if (choices.numbers === 'none') return { ...part, waste: keys, bounds };
  const kind = choices.numbers === 'pen' ? 'pen' : 'kiss';
  const strokes = panelNumber(
    { number: cell.number, film: part.film.name, order },
    [...inkedBy(part), ...keys.map(({ points }) => points)],
    bounds,
    (width, height) => fitsIn(width, height, room),
  ).map((points): WasteLine => ({ points, closed: false, what: 'number', kind }));
  return {
    ...part,
    waste: [...keys, ...strokes],
    bounds: strokes.reduce((box, { points }) => growBounds(box, points), bounds),
  };
}

/** Whether a key lies on a panel, and on one beside it too. */
function isOn({ axis, seam, x, y }: SeamKey, { row, column, seen }: PanelCell, there: ReadonlySet<string>) {
  const [own, along, [from, to]] =
    axis === 'upright' ? [column, y, [seen.minY, seen.maxY]] : [row, x, [seen.minX, seen.maxX]];
  if (along <= from || along >= to || (own !== seam && own !== seam + 1)) return false;
  const other = own === seam ? seam + 1 : seam;
  return there.has(axis === 'upright' ? `${row} ${other}` : `${other} ${column}`);
}

/** Why a film is in panels, where nobody asked for them. */
function inPanels({ film, bounds }: FilmLayer, room: PanelRoom, count: number): Finding[] {
  if (boxFits(bounds, room)) return [];
  const size = `${formatLength(widthOf(bounds), 'mm')} × ${formatLength(heightOf(bounds), 'mm')}`;
  const turned = room.turn === 'shorter' ? ', turned or not' : '';
  return [
    {
      code: 'in-panels',
      film: film.name,
      severity: 'note',
      message: `${film.name} is ${size}; in one go ${formatLength(room.across, 'mm')} across and ${formatLength(room.along, 'mm')} along is the most${turned}. It is taken apart into ${count} ${count === 1 ? 'panel' : 'panels'}.`,
      where: bounds,
    },
  ];
}

/** What is not cut is always said: seams may have moved since it was chosen. */
function leftOut(panels: readonly PanelPart[], film: string): Finding[] {
  const numbers = panels.filter(({ isCut }) => !isCut).map(({ cell }) => cell.number);
  if (numbers.length === 0) return [];
  return [
    {
      code: 'panels-left-out',
      film,
      severity: 'note',
      message:
        numbers.length === 1
          ? `Panel ${numbers[0]} of ${film} is not cut.`
          : `Panels ${numbers.join(', ')} of ${film} are not cut.`,
      waysOut: ['Tick them under Panels to have them cut'],
    },
  ];
}

/** Panels that are too full to be written on. */
function withoutNumber(panels: readonly PanelPart[], { numbers }: Apart['choices'], film: string): Finding[] {
  if (numbers === 'none') return [];
  const full = panels.filter(
    ({ isCut, cell, waste }) => isCut && cell.row >= 0 && waste.every(({ what }) => what !== 'number'),
  );
  if (full.length === 0) return [];
  const named = full.map(({ cell }) => cell.number).join(', ');
  return [
    {
      code: 'no-room-for-number',
      film,
      severity: 'note',
      message: `There is no waste for a number on ${full.length === 1 ? 'panel' : 'panels'} ${named} of ${film}.`,
      waysOut: ['Write it on the backing'],
    },
  ];
}

function shapesAgain(layer: FilmLayer, again: Again): Part[] {
  if (layer.film.id !== again.film) return [];
  return componentsOf(layer.region)
    .filter((shape) => again.at.some(({ x, y }) => liesOn(shape, [x, y])))
    .map((shape) => shapePart(layer, shape));
}

function wholeFilm({ film, region, marks, lines, bounds, area, copies }: FilmLayer): Part {
  return { id: film.id, film, label: film.name, region, marks, lines, waste: [], bounds, area, copies };
}

/** How a shape or a piece is known: by where it lies on the sign. */
const placeOf = ({ minX, minY }: Bounds): string => [minX, minY].map((v) => v.toFixed(1)).join(',');

/** One shape by itself. */
function shapePart({ film }: FilmLayer, region: Region): Part {
  const bounds = regionBounds(region);
  return {
    id: `${film.id}@${placeOf(bounds)}`,
    film,
    label: `a shape of ${film.name}`,
    region,
    marks: [],
    lines: [],
    waste: [],
    bounds,
    area: regionArea(region),
    copies: 1,
  };
}

const boundsOf = (region: Region, lines: readonly { readonly points: Float64Array }[]): Bounds =>
  lines.reduce((box, { points }) => growBounds(box, points), regionBounds(region));

/** What of a film lies on one panel, known by its row and column; undefined: nothing. */
function panelPart(layer: FilmLayer, cell: PanelCell): Part | undefined {
  const { film, copies } = layer;
  if (!boundsTouch(layer.bounds, cell.cut)) return undefined;
  const region = within(layer.region, cell);
  const frame = outlineWithin(cell, layer.bounds);
  const lines = layer.lines.flatMap((line) =>
    linesInside([line], frame).map((inside) => ({ ...line, ...inside })),
  );
  if (region.length === 0 && lines.length === 0) return undefined;
  return {
    id: `${film.id}#${cell.row + 1}.${cell.column + 1}`,
    film,
    label: `panel ${cell.number} of ${film.name}`,
    region,
    marks: within(layer.marks, cell),
    lines,
    waste: [],
    bounds: boundsOf(region, lines),
    area: regionArea(region),
    copies,
  };
}
