import { Clipper64, ClipType, FillRule } from 'clipper2-ts';
import type { Path64, Paths64 } from 'clipper2-ts';
import type { PreparedShape } from '../core/artwork/preparePiece';
import { boundsTouch } from '../core/geometry/bounds';

/**
 * The booleans that a separation cannot do without, bare: each shape less all that lies above it and touches its box,
 * then one union for each colour. Nothing is kept from one to the next, checked or mended.
 * @returns how often the library was called
 */
export function bareBooleans(shapes: readonly PreparedShape[], paths: readonly Paths64[]): number {
  const byColour = new Map<string, Paths64>();
  let calls = 0;
  const run = (type: ClipType, subject: Paths64, clip: Paths64): Paths64 => {
    const clipper = new Clipper64();
    clipper.addSubject(subject);
    if (clip.length > 0) clipper.addClip(clip);
    const out: Paths64 = [];
    clipper.execute(type, FillRule.NonZero, out);
    calls++;
    return out;
  };
  shapes.forEach(({ bounds, colour }, i) => {
    const above: Paths64 = [];
    for (let j = i + 1; j < shapes.length; j++)
      if (boundsTouch(bounds, shapes[j].bounds)) above.push(...paths[j]);
    const visible = above.length === 0 ? paths[i] : run(ClipType.Difference, paths[i], above);
    byColour.set(colour, [...(byColour.get(colour) ?? []), ...visible]);
  });
  for (const rings of byColour.values()) run(ClipType.Union, rings, []);
  return calls;
}

/** The same outlines on the library's own grid of 1 µm. */
export const gridPaths = (shapes: readonly PreparedShape[]): Paths64[] =>
  shapes.map(({ region }) =>
    region.map((ring) => {
      const path: Path64 = [];
      for (let i = 0; i < ring.length; i += 2)
        path.push({ x: Math.round(ring[i] * 1000), y: Math.round(ring[i + 1] * 1000) });
      return path;
    }),
  );
