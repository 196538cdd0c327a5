import { addressOf } from '../../contracts/address';
import type { FilePart } from '../../core/artwork/choices';

/** Where a file's picture is, so many pixels across; of a drawing that of its page. */
export const pictureAddress = (hash: string, { page, box, font }: FilePart, width: number): string =>
  addressOf('GET /api/files/{hash}/picture', { params: { hash }, query: { width, page, box, font } });
