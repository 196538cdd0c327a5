import type { ArtworkChoices } from '../artwork/choices';
import { NO_LINE_RULES } from '../artwork/choices';
import type { FilmChoices } from '../films/separate';
import { NO_FILM_CHOICES } from '../films/separate';
import type { Recipe } from '../layout/cutter';
import type { LayoutChoices } from '../layout/strip';
import { NO_WEED_LINES } from '../layout/weedChoices';
import type { PanelChoices } from '../panels/choices';
import { NO_PANEL_CHOICES } from '../panels/choices';
import type { PrintChoices } from '../print/choices';
import { NO_PRINT_CHOICES } from '../print/choices';

/** Everything a person decided about an order. Small, stored, undoable. */
export interface Choices {
  readonly artwork: ArtworkChoices;
  readonly films: FilmChoices;
  readonly panels: PanelChoices;
  readonly layout: LayoutChoices;
  readonly print: PrintChoices;
  readonly cut: CutChoices;
  readonly cutter: CutterChoices;
}

/**
 * What differs from the shop's recipes, by cutter id and film id (`filmId/kind` for other lines than the kiss cut's): what one
 * blade needs says nothing about another's.
 */
export interface CutChoices {
  readonly recipes: Readonly<Record<string, Readonly<Record<string, Partial<Recipe>>>>>;
}

export interface CutterChoices {
  /** The cutter that the order goes to; null: the shop's first. */
  readonly order: string | null;
  /** Films that go to another, by id. */
  readonly film: Readonly<Record<string, string>>;
}

export const DEFAULT_CHOICES: Choices = {
  artwork: {
    width: null,
    height: null,
    lockAspect: true,
    pieces: [],
    lines: NO_LINE_RULES,
    fixes: [],
    ignored: [],
  },
  films: NO_FILM_CHOICES,
  panels: NO_PANEL_CHOICES,
  layout: {
    pack: 'one',
    packFilm: {},
    turns: 'quarter',
    between: 3,
    packed: {},
    guests: {},
    rolls: {},
    copies: 1,
    spacing: 10,
    turn: 'shorter',
    mirror: 'by-film',
    border: 'copy',
    borderDistance: 5,
    place: 'edge',
    placeAt: { x: 0, y: 0 },
    abreast: null,
    weedLines: NO_WEED_LINES,
  },
  print: NO_PRINT_CHOICES,
  cut: { recipes: {} },
  cutter: { order: null, film: {} },
};
