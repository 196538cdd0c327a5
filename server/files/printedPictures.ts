/** Pictures of a printed sheet, ready to be laid on its page: as they came, and grown past their edges for the bleed. */
import sharp from 'sharp';
import type { ShownPicture } from '../../core/artwork/preparePiece';
import type { Matrix } from '../../core/geometry/matrix';
import type { Region } from '../../core/geometry/region';
import type { ColourArea } from '../../core/print/bleed';
import { grownPicture, reachOf } from '../../core/print/grownPicture';
import type { PrintUnit } from '../../core/print/sheets';
import type { Picture } from '../../core/tracing/picture';
import { kindOf } from './fileKind';
import { hasPages, openPage, PAGE_PIXELS, pageForPrint, pagePng } from './pageAsItIs';
import { openPicture, pictureForPrint } from './readPicture';

/** A picture laid on a page. */
export interface LaidPicture {
  /** JPEG as it came, or PNG; of a drawing its page as a PDF. */
  readonly bytes: Buffer;
  readonly isPage?: true;
  /** Where it lies, in pixels of the picture as it came. */
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly height: number;
  /** From those pixels to mm. */
  readonly matrix: Matrix;
}

/** What is laid in the areas that show a picture. */
export type LaidPictures = ReadonlyMap<ColourArea, LaidPicture>;

/**
 * @param files what is in them, by hash; a picture that is not among them stays an area of its colour
 * @param as `original`: JPEG and the pages of drawings stay as they came, in their own inks; else all are PNG
 * @throws FileProblem when a picture cannot be read
 */
export async function laidPictures(
  { art, bleed }: Pick<PrintUnit, 'art' | 'bleed'>,
  files: ReadonlyMap<string, Uint8Array>,
  as: 'original' | 'png',
): Promise<LaidPictures> {
  // pieces with the same picture share what is made of it, and so does the page
  const original = onceEach(nameOf, (shown) => forPrint(files.get(shown.file)!, shown, as));
  const opened = onceEach(nameOf, (shown) => pixelsOf(files.get(shown.file)!, shown));
  const grown = onceEach(
    ({ shown, reach }: { readonly shown: ShownPicture; readonly reach: number }) =>
      `${nameOf(shown)} ${reach}`,
    async ({ shown, reach }) => {
      const picture = await opened(shown);
      return grownPng(picture, (reach * picture.width) / shown.width);
    },
  );
  const isThere = ({ picture }: ColourArea): boolean => picture !== undefined && files.has(picture.file);
  const asArt = async (picture: ShownPicture): Promise<LaidPicture> => {
    const { width, height, matrix } = picture;
    return { ...(await original(picture)), x: 0, y: 0, width, height, matrix };
  };
  const asBleed = async (region: Region, picture: ShownPicture): Promise<LaidPicture> => {
    const { bytes, at, size } = await grown({ shown: picture, reach: reachOf(region, picture) });
    const [across, down] = [picture.width / at.width, picture.height / at.height];
    const place = {
      x: -at.x * across,
      y: -at.y * down,
      width: size.width * across,
      height: size.height * down,
    };
    return { bytes, ...place, matrix: picture.matrix };
  };
  const laid = [
    ...art.filter(isThere).map(async (area) => [area, await asArt(area.picture!)] as const),
    ...bleed.filter(isThere).map(async (area) => [area, await asBleed(area.region, area.picture!)] as const),
  ];
  return new Map(await Promise.all(laid));
}

const nameOf = ({ file, part: { page, box, font } }: ShownPicture): string =>
  `${file} ${page} ${box} ${font}`;

async function forPrint(
  bytes: Uint8Array,
  { part, width }: ShownPicture,
  as: 'original' | 'png',
): Promise<Pick<LaidPicture, 'bytes' | 'isPage'>> {
  if (!hasPages(kindOf(bytes))) return { bytes: await pictureForPrint(bytes, as === 'original') };
  if (as === 'png') return { bytes: await pagePng(bytes, part, width) };
  return { bytes: await pageForPrint(bytes, part), isPage: true };
}

const pixelsOf = async (bytes: Uint8Array, { part }: ShownPicture): Promise<Picture> =>
  (hasPages(kindOf(bytes)) ? await openPage(bytes, part, PAGE_PIXELS.bleed) : await openPicture(bytes))
    .picture;

/** What is asked for twice is made once. */
function onceEach<Asked, T>(
  nameOf: (asked: Asked) => string,
  make: (asked: Asked) => Promise<T>,
): (asked: Asked) => Promise<T> {
  const known = new Map<string, Promise<T>>();
  return (asked) => {
    const name = nameOf(asked);
    const made = known.get(name) ?? make(asked);
    known.set(name, made);
    return made;
  };
}

/** A picture with its edges drawn out, and where in it the picture itself lies. */
async function grownPng(picture: Picture, reach: number) {
  const { at, data, ...size } = grownPicture(picture, reach);
  const bytes = await sharp(data, { raw: { ...size, channels: 4 } })
    .removeAlpha()
    .png()
    .toBuffer();
  return { bytes, at, size };
}
