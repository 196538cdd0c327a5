/** The whole sign: every piece of artwork at its size and in its place. */
import type { Artwork } from '../readers/artwork';
import type { ArtworkChoices, Piece } from './choices';
import { PLACE_FIXES, sourceKey } from './choices';
import type { PieceRules, PreparedLine, PreparedPiece, PreparedShape, SizeChoices } from './preparePiece';
import { finalSize, fit, mapInk, preparePiece, sizeTrouble } from './preparePiece';
import { withoutDoubles } from './doubles';
import type { Finding } from '../findings/finding';
import type { Bounds } from '../geometry/bounds';
import { emptyBounds, heightOf, isEmptyBounds, joinBounds, widthOf } from '../geometry/bounds';
import type { Matrix } from '../geometry/matrix';
import { IDENTITY, multiply, translation } from '../geometry/matrix';
import type { MakeStage } from '../stages/remember';
import { forgetful } from '../stages/remember';

/** Where one piece lies on the sign, and what it is by itself; mm. */
export interface PlacedPiece {
  readonly id: string;
  readonly box: Bounds;
  /** Its size before turning. */
  readonly width: number;
  readonly height: number;
  readonly natural: PreparedPiece['natural'];
}

/** The sign at final size, its upper left corner at 0, 0; mm, y down. */
export interface PreparedArtwork {
  readonly width: number;
  readonly height: number;
  /** The size it has without a finished size typed for the whole. */
  readonly natural: PreparedPiece['natural'];
  readonly pieces: readonly PlacedPiece[];
  readonly shapes: readonly PreparedShape[];
  readonly lines: readonly PreparedLine[];
  readonly findings: readonly Finding[];
}

type PreparePiece = (artwork: Artwork, size: SizeChoices, piece: Piece) => PreparedPiece;

/** Pieces are many in one order. */
const KEPT_PIECES = 200;

/** {@link prepare} with its steps as stages, so that a planner's remember what they made. */
export function preparing(stage: MakeStage) {
  const prepareOne = stage('piece', preparePiece, KEPT_PIECES);
  const whole = stage('prepare', (known: readonly Known[], missing: number, choices: WholeChoices) => {
    const piece: PreparePiece = (artwork, { width, height, lockAspect }, own) =>
      prepareOne(artwork, { width, height, lockAspect }, rulesOf(own, choices));
    return prepareWhole(known, missing, choices, piece);
  });
  return (artworks: ReadonlyMap<string, Artwork>, choices: ArtworkChoices): PreparedArtwork => {
    const known = choices.pieces.flatMap((piece) => {
      const artwork = artworks.get(sourceKey(piece.source));
      return artwork ? [{ piece, artwork }] : [];
    });
    const { width, height, lockAspect, lines, fixes } = choices;
    const own = fixes.filter(({ kind }) => !PLACE_FIXES.has(kind));
    return whole(known, choices.pieces.length - known.length, {
      width,
      height,
      lockAspect,
      lines,
      fixes: own,
    });
  };
}

/**
 * Sizes, turns, mirrors and places every piece, back to front, and brings the whole to its finished size.
 * Takes artworks by {@link sourceKey}; a piece whose artwork is not there is left out and said.
 */
export const prepare = preparing(forgetful);

type WholeChoices = Pick<ArtworkChoices, 'width' | 'height' | 'lockAspect' | 'lines' | 'fixes'>;

/** The rules and fixes that can mean something to one piece. */
function rulesOf({ id, source }: Piece, { lines, fixes }: WholeChoices): PieceRules {
  const isOwn = (at: string): boolean => at === '*' || at.startsWith(`${id}/`);
  const ofOwn = <T>(rules: Readonly<Record<string, T>>): Record<string, T> =>
    Object.fromEntries(Object.entries(rules).filter(([at]) => isOwn(at)));
  return {
    id,
    ...(source.kind === 'file' && { file: source }),
    lines: { ...lines, shape: ofOwn(lines.shape), stroke: ofOwn(lines.stroke) },
    fixes: fixes.filter(({ at }) => isOwn(at)),
  };
}

function prepareWhole(
  known: readonly Known[],
  missing: number,
  choices: WholeChoices,
  prepareOne: PreparePiece,
): PreparedArtwork {
  const prepared =
    known.length === 1 && isPlain(known[0].piece)
      ? justOne(known[0].piece, known[0].artwork, choices, prepareOne)
      : composed(known, choices, prepareOne);
  const findings = [...prepared.findings, ...(missing > 0 ? [notThere(missing)] : [])];
  return { ...prepared, lines: withoutDoubles(prepared.lines, choices.fixes), findings };
}

interface Known {
  readonly piece: Piece;
  readonly artwork: Artwork;
}

/** One piece as it lies: the finished size of the sign is its own. */
const isPlain = ({ turn, mirror }: Piece): boolean => turn % 360 === 0 && !mirror;

function justOne(
  piece: Piece,
  artwork: Artwork,
  choices: WholeChoices,
  prepareOne: PreparePiece,
): PreparedArtwork {
  const typed = choices.width !== null || choices.height !== null;
  const { natural, width, height, shapes, lines, findings } = prepareOne(
    artwork,
    typed ? choices : piece,
    piece,
  );
  const box = { minX: 0, minY: 0, maxX: width, maxY: height };
  const placed = { id: piece.id, box, width, height, natural };
  return { width, height, natural, pieces: [placed], shapes, lines, findings };
}

interface Placed {
  readonly piece: Piece;
  readonly made: PreparedPiece;
  readonly shapes: readonly PreparedShape[];
  readonly lines: readonly PreparedLine[];
  readonly box: Bounds;
}

function composed(known: readonly Known[], choices: WholeChoices, prepareOne: PreparePiece): PreparedArtwork {
  const atOwnSize = known.map(({ piece, artwork }) => {
    const made = prepareOne(artwork, piece, piece);
    return place(piece, made, 1, 1);
  });
  const covered = boxOf(atOwnSize);
  const natural = { x: covered.minX, y: covered.minY, width: widthOf(covered), height: heightOf(covered) };
  const size = finalSize(natural, choices);
  const findings = atOwnSize.flatMap(({ made }) => made.findings);
  const trouble = isEmptyBounds(covered) ? undefined : sizeTrouble(size);
  if (isEmptyBounds(covered) || trouble) {
    return {
      width: natural.width,
      height: natural.height,
      natural: isEmptyBounds(covered) ? { x: 0, y: 0, width: 0, height: 0 } : natural,
      pieces: [],
      shapes: [],
      lines: [],
      findings: trouble ? [...findings, trouble] : findings.length > 0 ? findings : [noArtwork()],
    };
  }
  const sx = natural.width > 0 ? size.width / natural.width : 1;
  const sy = natural.height > 0 ? size.height / natural.height : 1;
  const placed =
    sx === 1 && sy === 1
      ? atOwnSize
      : known.map(({ piece, artwork }, i) => {
          const made = prepareOne(artwork, grown(atOwnSize[i], sx, sy), piece);
          return place(piece, made, sx, sy);
        });
  return { ...size, natural, ...assemble(placed, fit(boxOf(placed), size)), findings };
}

/** A piece's size when the whole sign is scaled; turned by anything but quarter turns it grows evenly. */
function grown({ piece, made }: Placed, sx: number, sy: number): SizeChoices {
  const quarter = ((piece.turn % 180) + 180) % 180;
  const even = Math.max(sx, sy);
  const [kx, ky] = quarter === 0 ? [sx, sy] : quarter === 90 ? [sy, sx] : [even, even];
  return { width: made.width * kx, height: made.height * ky, lockAspect: false };
}

function assemble(
  placed: readonly Placed[],
  toFinal: Matrix,
): Pick<PreparedArtwork, 'pieces' | 'shapes' | 'lines'> {
  const ink = placed.map((one) => mapInk(one, toFinal));
  return {
    shapes: ink.flatMap(({ shapes }) => shapes),
    lines: ink.flatMap(({ lines }) => lines),
    pieces: placed.map(({ piece, made, box }) => ({
      id: piece.id,
      box: {
        minX: toFinal[0] * box.minX + toFinal[4],
        maxX: toFinal[0] * box.maxX + toFinal[4],
        minY: toFinal[3] * box.minY + toFinal[5],
        maxY: toFinal[3] * box.maxY + toFinal[5],
      },
      width: made.width,
      height: made.height,
      natural: made.natural,
    })),
  };
}

/** Mirrors and turns a piece about its middle and lays the box it then has at its place. */
function place(piece: Piece, made: PreparedPiece, sx: number, sy: number): Placed {
  const ink = mapInk(made, turned(piece, made));
  const box = inkBox(ink);
  const move = isEmptyBounds(box) ? IDENTITY : translation(piece.x * sx - box.minX, piece.y * sy - box.minY);
  const there = mapInk(ink, move);
  return { piece, made, ...there, box: inkBox(there) };
}

function turned({ turn, mirror }: Piece, { width, height }: PreparedPiece): Matrix {
  const angle = (turn * Math.PI) / 180;
  // quarter turns exactly: sin and cos of them are not
  const [c, s] = turn % 90 === 0 ? QUARTERS[(((turn / 90) % 4) + 4) % 4] : [Math.cos(angle), Math.sin(angle)];
  const flip: Matrix = mirror ? [-1, 0, 0, 1, 0, 0] : IDENTITY;
  return multiply([c, s, -s, c, 0, 0], multiply(flip, translation(-width / 2, -height / 2)));
}

const QUARTERS: readonly (readonly [number, number])[] = [
  [1, 0],
  [0, 1],
  [-1, 0],
  [0, -1],
];

const inkBox = ({ shapes, lines }: Pick<Placed, 'shapes' | 'lines'>): Bounds =>
  [...shapes, ...lines].reduce((box, ink) => joinBounds(box, ink.bounds), emptyBounds());

const boxOf = (placed: readonly Placed[]): Bounds =>
  placed.reduce((box, one) => joinBounds(box, one.box), emptyBounds());

const noArtwork = (): Finding => ({
  code: 'nothing-to-cut',
  severity: 'stop',
  message: 'There is no artwork in this order yet.',
  waysOut: ['Bring in a file or type a text under Artwork'],
});

const notThere = (count: number): Finding => ({
  code: 'piece-missing',
  severity: 'stop',
  message: `${count === 1 ? 'A piece of artwork is' : `${count} pieces of artwork are`} still being read.`,
});
