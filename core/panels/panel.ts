/** What of each film is cut as one: all of it, its panels, or the shapes that are to be cut again. */
import type { Again } from '../films/again';
import type { FilmLayer } from '../films/separate';
import type { Finding } from '../findings/finding';
import { boundsTouch, emptyBounds, growBounds, heightOf, joinBounds, widthOf } from '../geometry/bounds';
import { componentsOf, liesOn } from '../geometry/nesting';
import type { Region } from '../geometry/region';
import { linesInside, rectangle, regionArea, regionBounds } from '../geometry/region';
import type { PanelChoices } from './choices';
import type { Part } from './part';
import { formatLength } from '../units/length';
import type { PanelRoom } from './room';
import { boxFits, keptRoom } from './room';
import type { Panelling } from './seams';
import { tooLarge } from './seams';
import type { PanelCell } from './split';
import { cellsOf, framed, within } from './split';

/** How one film is taken apart. */
export interface Apart {
  readonly panelling: Panelling;
  readonly choices: Pick<PanelChoices, 'overlap' | 'onTop' | 'skip' | 'reserve'>;
  /** Of this film's own cutter. */
  readonly room: PanelRoom;
  /** Only these panels, once each. */
  readonly only?: readonly number[];
}

export interface Parts {
  readonly parts: readonly Part[];
  /** All panels with something on them, those that are not cut too. */
  readonly panels: readonly PanelPart[];
  readonly findings: readonly Finding[];
}

/** A panel of one film. */
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
  const { choices, panelling, room } = apart;
  if (panelling.findings.some(({ severity }) => severity === 'stop'))
    return { parts: [], panels: [], findings: [] };
  const { only } = apart;
  const isWanted = ({ number }: PanelCell): boolean =>
    only ? only.includes(number) : !choices.skip.includes(number);
  const panels = cellsOf(panelling.seams, choices).flatMap((cell): PanelPart[] => {
    const part = panelPart(layer, cell);
    return part ? [{ ...part, ...(only && { copies: 1 }), cell, isCut: isWanted(cell) }] : [];
  });
  return {
    parts: panels.filter(({ isCut }) => isCut),
    panels,
    findings: [
      ...inPanels(layer, keptRoom(room, choices.reserve), panels.length),
      ...leftOut(panels, layer.film.name),
      ...panels.flatMap(
        ({ cell, bounds, isCut }) =>
          (isCut ? tooLarge(cell.number, bounds, layer.film.name, room) : undefined) ?? [],
      ),
    ],
  };
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

function shapesAgain(layer: FilmLayer, again: Again): Part[] {
  if (layer.film.id !== again.film) return [];
  return componentsOf(layer.region)
    .filter((shape) => again.at.some(({ x, y }) => liesOn(shape, [x, y])))
    .map((shape) => shapePart(layer, shape));
}

function wholeFilm({ film, region, marks, lines, bounds, area, copies }: FilmLayer): Part {
  return { id: film.id, film, label: film.name, region, marks, lines, bounds, area, copies };
}

/** One shape by itself, known by where it lies on the sign. */
function shapePart({ film }: FilmLayer, region: Region): Part {
  const bounds = regionBounds(region);
  const place = [bounds.minX, bounds.minY].map((v) => v.toFixed(1)).join(',');
  return {
    id: `${film.id}@${place}`,
    film,
    label: `a shape of ${film.name}`,
    region,
    marks: [],
    lines: [],
    bounds,
    area: regionArea(region),
    copies: 1,
  };
}

/** What of a film lies on one panel, known by its row and column; undefined: nothing. */
function panelPart(layer: FilmLayer, cell: PanelCell): Part | undefined {
  const { film, copies } = layer;
  if (!boundsTouch(layer.bounds, cell.cut)) return undefined;
  const region = within(layer.region, cell.cut);
  const frame = rectangle(framed(cell.cut, layer.bounds));
  const lines = layer.lines.flatMap((line) =>
    linesInside([line], frame).map((inside) => ({ ...line, ...inside })),
  );
  if (region.length === 0 && lines.length === 0) return undefined;
  const drawn = lines.reduce((box, { points }) => growBounds(box, points), emptyBounds());
  return {
    id: `${film.id}#${cell.row + 1}.${cell.column + 1}`,
    film,
    label: `panel ${cell.number} of ${film.name}`,
    region,
    marks: within(layer.marks, cell.cut),
    lines,
    bounds: joinBounds(regionBounds(region), drawn),
    area: regionArea(region),
    copies,
  };
}
