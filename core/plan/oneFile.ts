import type { Artwork } from '../readers/artwork';
import type { Piece } from '../artwork/choices';
import { pieceOfFile, sourceKey } from '../artwork/choices';
import type { Choices } from './choices';
import { DEFAULT_CHOICES } from './choices';

/** An order of one piece, ready to be planned. */
export function oneFile(
  artwork: Artwork,
  choices: Omit<Partial<Choices>, 'artwork'> & { readonly artwork?: Partial<Choices['artwork']> } = {},
  piece: Piece = pieceOfFile('', 'art.svg'),
): { artworks: ReadonlyMap<string, Artwork>; choices: Choices } {
  return {
    artworks: new Map([[sourceKey(piece.source), artwork]]),
    choices: {
      ...DEFAULT_CHOICES,
      ...choices,
      artwork: { ...DEFAULT_CHOICES.artwork, ...choices.artwork, pieces: [piece] },
    },
  };
}
