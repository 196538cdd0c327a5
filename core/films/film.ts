/** Film on the shelf, mm: a roll, a pile of sheets of one size, or an offcut, which is a pile of one. */
export interface Roll {
  readonly width: number;
  /** Of sheets: how long each is. */
  readonly lengthLeft: number;
  /** How many sheets lie there; missing: a roll. */
  readonly sheets?: number;
  /** A single piece that was left over: what is written on it. */
  readonly offcut?: string;
}

/** How a film behaves under another: what it is made of decides. */
export type Build = 'opaque' | 'metallic' | 'translucent' | 'flock';
export type Finish = 'gloss' | 'satin' | 'matt';

export const BUILDS: readonly Build[] = ['opaque', 'metallic', 'translucent', 'flock'];
export const FINISHES: readonly Finish[] = ['gloss', 'satin', 'matt'];

/** A film as the shop stocks it. */
export interface Film {
  readonly id: string;
  readonly name: string;
  readonly code: string;
  /** Lower-case `#rrggbb`. */
  readonly colour: string;
  /** On the shelf; none when it has to be ordered. */
  readonly rolls: readonly Roll[];
  /** Cut from the back, so the cut is mirrored: garment film. */
  readonly cutFromBack: boolean;
  readonly kind: 'sign' | 'garment';
  /** Where they differ from those of its kind and build. */
  readonly limits?: Partial<FilmLimits>;
  /** What it is made of; missing: opaque, flock for garments. */
  readonly build?: Build;
  /** Missing: gloss, matt for garments. */
  readonly finish?: Finish;
  /** Not offered any more; orders that use it keep it. */
  readonly putAway?: boolean;
  /** It looks another way when it is turned: brushed, patterned. Missing: as its build has it. */
  readonly grain?: boolean;
  /** The shop's own money, for a metre of the roll. */
  readonly price?: number;
  /** mm: it is ordered when less is left; missing: as is usual. */
  readonly low?: number;
  /** As it is bought; missing: like what lies there. */
  readonly pack?: Roll;
  /** Packs that are ordered and have not come. */
  readonly coming?: number;
  /** mm with its backing; missing: as its kind has it. */
  readonly thickness?: number;
  /** It is printed on, and cut around what is printed; what shows then where nothing is. */
  readonly print?: PrintGround | null;
}

/** What shows where nothing is printed. */
export const PRINT_GROUNDS = ['white', 'clear', 'dark'] as const;
export type PrintGround = (typeof PRINT_GROUNDS)[number];

/** What a film can hold together when it is weeded, and how it behaves. */
export interface FilmLimits {
  /** Narrowest stem that stays, mm. */
  readonly narrowest: number;
  /** Smallest loose piece that stays, mm². */
  readonly island: number;
  /** Narrowest gap between two cuts that stays, mm. */
  readonly gap: number;
  /** Films that may lie on one another where it is the lowest, itself counted. */
  readonly stack: number;
  /** How long it runs true under the rollers, mm. */
  readonly track: number;
}

/** Ordinary limits (common practice, no source): flock is thicker and wants more, and slips earlier. */
const ORDINARY: Readonly<Record<Film['kind'], Omit<FilmLimits, 'stack'>>> = {
  sign: { narrowest: 1.5, island: 3, gap: 0.3, track: 8000 },
  garment: { narrowest: 2, island: 6, gap: 0.5, track: 3000 },
};
/** By the build of the lowest film (common practice, no source). */
const STACK: Readonly<Record<Build, number>> = { opaque: 3, metallic: 2, translucent: 1, flock: 2 };

/** mm with the backing (common practice, no source). */
const THICKNESS: Readonly<Record<Film['kind'], number>> = { sign: 0.2, garment: 0.5 };
export const thicknessOf = ({ kind, thickness }: Pick<Film, 'kind' | 'thickness'>): number =>
  thickness ?? THICKNESS[kind];

/** A film's build; where it is not said, that of its kind. */
export const buildOf = (film: Film): Build => film.build ?? (film.kind === 'garment' ? 'flock' : 'opaque');

export const finishOf = (film: Film): Finish => film.finish ?? (film.kind === 'garment' ? 'matt' : 'gloss');

/** Whether a film may be turned by 180° only: flock lies one way, and so does what is brushed or patterned. */
export const hasGrain = (film: Film): boolean => film.grain ?? buildOf(film) === 'flock';

/** A film's own limits; where it has none, those of its kind and build. */
export const limitsOf = (film: Film): FilmLimits => ({
  ...ORDINARY[film.kind],
  stack: STACK[buildOf(film)],
  ...film.limits,
});

/** mm² of film in rolls, sheets and offcuts. */
export const areaOf = (rolls: readonly Roll[]): number =>
  rolls.reduce((sum, { width, lengthLeft, sheets = 1 }) => sum + width * lengthLeft * sheets, 0);

/** A film's width as a cutter's sensors tell it may differ by this, mm (common practice, no source). */
export const WIDTH_SLACK = 4;

/** mm of a film on the shelf, all rolls and sheets together. */
export const stockOf = ({ rolls }: Pick<Film, 'rolls'>): number =>
  rolls.reduce((sum, { lengthLeft, sheets = 1 }) => sum + lengthLeft * sheets, 0);
