declare module 'wawoff2' {
  export function decompress(font: Uint8Array): Promise<Uint8Array>;
}
