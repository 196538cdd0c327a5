/** A sheet's code. */
import QRCode from 'qrcode';
import type { Bounds } from '../geometry/bounds';
import { rounded } from '../units/rounded';

/** Modules reach so far over the next ones: a renderer shows no seams between them then. */
const OVER = 0.02;
/** Modules kept free around a code (ISO/IEC 18004). */
const QUIET_ZONE = 4;

/** A QR code (ISO/IEC 18004) with its quiet zone inside a box, as SVG path data. */
export function codePath(says: string, { minX, minY, maxX }: Bounds): string {
  const { modules } = QRCode.create(says, { errorCorrectionLevel: 'M' });
  const step = (maxX - minX) / (modules.size + 2 * QUIET_ZONE);
  const at = (from: number, n: number): number => rounded(from + (n + QUIET_ZONE) * step, 4);
  let d = '';
  for (let row = 0; row < modules.size; row++)
    for (let column = 0; column < modules.size; column++)
      if (modules.get(row, column))
        d += `M${at(minX, column)} ${at(minY, row)}H${at(minX, column + 1 + OVER)}V${at(minY, row + 1 + OVER)}H${at(minX, column)}Z`;
  return d;
}
