/** A drawing that is printed as it is, and cut around where its page paints anything, whatever it paints it with. */
import type { FilePart } from '../../core/artwork/choices';
import { isHairline } from '../../core/artwork/preparePiece';
import type { Finding } from '../../core/findings/finding';
import type { Artwork } from '../../core/readers/artwork';
import type { TraceChoices } from '../../core/tracing/choices';
import { artworkOfTrace, trace } from '../../core/tracing/trace';
import { openPage, PAGE_PIXELS } from './pageAsItIs';

/** What films cannot show of a drawing; a printer can. */
const ONLY_ON_FILM = new Set(['image', 'pattern', 'mask', 'veil']);

/** @param drawn what it reads as by its shapes: it tells what the file leaves open, and what is missing of its text */
export async function readAsItIs(
  drawn: Artwork,
  bytes: Uint8Array,
  part: FilePart,
  choices: TraceChoices,
): Promise<Artwork> {
  const { picture, across, down } = await openPage(bytes, part, PAGE_PIXELS.outline);
  const traced = trace(picture, choices);
  const artwork = artworkOfTrace(traced, across / picture.width, down / picture.height);
  return {
    ...artwork,
    offers: { ...drawn.offers, ...artwork.offers },
    findings: [
      ...drawn.findings.filter(({ code }) => !ONLY_ON_FILM.has(code)),
      ...printedLines(drawn),
      ...artwork.findings,
    ],
  };
}

/** A cut line that is drawn in the file would be printed with the rest. */
function printedLines({ shapes }: Artwork): Finding[] {
  const n = shapes.filter((shape) => isHairline(shape, shape.matrix)).length;
  if (n === 0) return [];
  return [
    {
      code: 'lines-printed',
      severity: 'check',
      message: `${n === 1 ? '1 hairline is' : `${n} hairlines are`} printed with the drawing. If that is where it is to be cut, it must not be printed.`,
      waysOut: [
        'Take the drawing by its shapes, under Artwork, and give the line its kind',
        'Leave it, if it is to be seen',
      ],
    },
  ];
}
