/** An answer that is not plain JSON. */
export class Sent {
  constructor(
    readonly bytes: Buffer,
    readonly headers: Readonly<Record<string, string>>,
  ) {}
}

/** JSON that lies packed already. */
export const packed = (bytes: Buffer, headers: Readonly<Record<string, string>> = {}): Sent =>
  new Sent(bytes, { 'Content-Type': 'application/json', 'Content-Encoding': 'gzip', ...headers });

export const picture = (bytes: Uint8Array, cache: string): Sent =>
  new Sent(Buffer.from(bytes), { 'Content-Type': 'image/png', 'Cache-Control': `private, ${cache}` });

export const paper = (bytes: Uint8Array, name: string): Sent =>
  new Sent(Buffer.from(bytes), {
    'Content-Type': 'application/pdf',
    'Content-Disposition': `inline; filename="${name}"`,
  });

/** Always a download, never a page: a customer's SVG must not run in the app's own origin. */
export function download(bytes: Uint8Array, name: string, type = 'application/octet-stream'): Sent {
  const plain = name.replace(/[^\w. -]+/g, '_');
  return new Sent(Buffer.from(bytes), {
    'Content-Type': type,
    'Content-Disposition': `attachment; filename="${plain}"; filename*=UTF-8''${encodeURIComponent(name)}`,
  });
}
