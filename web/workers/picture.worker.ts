import { expose, transfer } from 'comlink';
import { grownPicture } from '../../core/print/grownPicture';
import { pixelsAt } from './pixels';

/** A picture to be drawn, and where it lies in pixels of the file's own. */
export interface DrawnPicture {
  readonly bitmap: ImageBitmap;
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly height: number;
}

const work = {
  /**
   * @param width px that the file's own picture is wide; what is fetched may be smaller
   * @param reach how far its edges are drawn out, in those pixels; undefined: not at all
   */
  async fetch(url: string, width: number, reach: number | undefined): Promise<DrawnPicture> {
    const pixels = await pixelsAt(url);
    const scale = width / pixels.width;
    if (reach === undefined) {
      const bitmap = await createImageBitmap(pixels);
      return transfer({ bitmap, x: 0, y: 0, width, height: pixels.height * scale }, [bitmap]);
    }
    const { at, data, ...size } = grownPicture(pixels, reach / scale);
    const own = width / at.width;
    const bitmap = await createImageBitmap(
      new ImageData(new Uint8ClampedArray(data), size.width, size.height),
    );
    const place = { x: -at.x * own, y: -at.y * own, width: size.width * own, height: size.height * own };
    return transfer({ bitmap, ...place }, [bitmap]);
  },
};

export type PictureWork = typeof work;

expose(work);
