/** A print that came out of the simulated printer, and how it lies in a cutter: what a sensor sees of it, and where what is cut lands. */

/** Grey as it was printed, row by row from the upper left; 0 black, 255 white. */
export interface Print {
  /** mm of the page it was made from */
  readonly width: number;
  readonly height: number;
  readonly columns: number;
  readonly rows: number;
  readonly grey: Uint8Array;
}

/** What printing and loading did to a sheet. */
export interface Lie {
  /** Degrees that it lies turned about its middle, upside down included. */
  readonly turn: number;
  /** mm that its middle lies aside */
  readonly shift: readonly [x: number, y: number];
  /** Lengths printed over lengths designed, both ways. */
  readonly stretch: readonly [x: number, y: number];
  /** mm that the middle of its length lies aside from its ends */
  readonly bow: number;
  /** Printed mirrored, or face down on something clear. */
  readonly mirrored: boolean;
  /** Share of the ink that came through: 1 all of it. */
  readonly ink: number;
  /** Reflectance of what it is printed on, and by how much that differs from place to place. */
  readonly ground: number;
  readonly grain: number;
  /** Places where something lies over the print, mm on the page: x, y, radius. */
  readonly covers: readonly (readonly [x: number, y: number, radius: number])[];
}

/** Reflectance of paper and of full ink (common practice, no source). */
const [PAPER, BLACK] = [0.9, 0.06];

export const STRAIGHT: Lie = {
  turn: 0,
  shift: [0, 0],
  stretch: [1, 1],
  bow: 0,
  mirrored: false,
  ink: 1,
  ground: PAPER,
  grain: 0,
  covers: [],
};

export interface LoadedPrint {
  /** Reflectance, 0 black … 1 white, mm along the film from its beginning and across it from its far edge. */
  readonly reflectance: (x: number, y: number) => number;
  /** The place of the page that lies there. */
  readonly toPage: (x: number, y: number) => readonly [x: number, y: number];
  /** Where a place of the page lies. */
  readonly onFilm: (u: number, v: number) => readonly [x: number, y: number];
}

export function lay(print: Print, lie: Lie): LoadedPrint {
  const { width, height, columns, rows, grey } = print;
  const [cos, sin] = [Math.cos((lie.turn * Math.PI) / 180), Math.sin((lie.turn * Math.PI) / 180)];
  const [cx, cy] = [width / 2, height / 2];
  const [sx, sy] = lie.stretch;
  const flip = lie.mirrored ? -1 : 1;
  /** Along the length a bow lies a parabola aside. */
  const bowAt = (along: number): number => lie.bow * (1 - (along / cx) ** 2);
  const onFilm = (u: number, v: number): readonly [number, number] => {
    const along = flip * (u - cx);
    const [x, y] = [along * sx, (v - cy) * sy + bowAt(along)];
    return [cx + cos * x - sin * y + lie.shift[0], cy + sin * x + cos * y + lie.shift[1]];
  };
  const toPage = (x: number, y: number): readonly [number, number] => {
    const [dx, dy] = [x - cx - lie.shift[0], y - cy - lie.shift[1]];
    const [px, py] = [cos * dx + sin * dy, -sin * dx + cos * dy];
    const along = px / sx;
    return [cx + flip * along, cy + (py - bowAt(along)) / sy];
  };
  const inkAt = (u: number, v: number): number => {
    const [i, j] = [(u / width) * columns - 0.5, (v / height) * rows - 0.5];
    const [c, r] = [Math.floor(i), Math.floor(j)];
    if (c < 0 || r < 0 || c + 1 >= columns || r + 1 >= rows) return 0;
    const [fc, fr] = [i - c, j - r];
    const at = r * columns + c;
    const upper = grey[at] * (1 - fc) + grey[at + 1] * fc;
    const lower = grey[at + columns] * (1 - fc) + grey[at + columns + 1] * fc;
    return 1 - (upper * (1 - fr) + lower * fr) / 255;
  };
  const isCovered = (u: number, v: number): boolean =>
    lie.covers.some(([at, down, radius]) => Math.hypot(u - at, v - down) < radius);
  const reflectance = (x: number, y: number): number => {
    const [u, v] = toPage(x, y);
    if (lie.covers.length > 0 && isCovered(u, v)) return PAPER;
    const bare = lie.grain === 0 ? lie.ground : lie.ground + lie.grain * grainAt(u / GRAIN, v / GRAIN);
    return bare - (bare - BLACK) * lie.ink * inkAt(u, v);
  };
  return { reflectance, toPage, onFilm };
}

/** mm across which a stock's own grain changes (our own). */
const GRAIN = 0.8;

/** From −1 to 1, even between whole numbers: value noise by a hash of each of them. */
function grainAt(x: number, y: number): number {
  const [i, j] = [Math.floor(x), Math.floor(y)];
  const at = (a: number, b: number): number => {
    const hash = Math.imul(a * 374_761_393 + b * 668_265_263, 1_274_126_177);
    return ((hash ^ (hash >>> 16)) >>> 0) / 2 ** 31 - 1;
  };
  const [fx, fy] = [x - i, y - j];
  const upper = at(i, j) * (1 - fx) + at(i + 1, j) * fx;
  const lower = at(i, j + 1) * (1 - fx) + at(i + 1, j + 1) * fx;
  return upper * (1 - fy) + lower * fy;
}
