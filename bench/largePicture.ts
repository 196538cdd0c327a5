import { random } from '../core/random';
import type { Picture } from '../core/tracing/picture';

/** A picture of soft waves in three colours on white: hundreds of outlines, from small to as wide as the picture. */
export function largePicture(width: number, height: number): Picture {
  const data = new Uint8ClampedArray(4 * width * height).fill(255);
  for (let y = 0; y < height; y++) {
    for (let x = 0; x < width; x++) {
      const wave = Math.sin(x / 60) * Math.cos(y / 45) + Math.sin((x + y) / 130);
      if (wave > -0.7 && wave < 0.4) continue;
      const colour = wave > 1 ? [75, 31, 74] : wave > 0.4 ? [46, 111, 126] : [226, 162, 27];
      data.set(colour, 4 * (y * width + x));
    }
  }
  return { width, height, data };
}

/** Every pixel another colour: the worst that can be sent to be traced. */
export function pictureOfStatic(width: number, height: number): Picture {
  const next = random(9);
  const data = Uint8ClampedArray.from({ length: 4 * width * height }, (_, i) =>
    i % 4 === 3 ? 255 : 256 * next(),
  );
  return { width, height, data };
}
