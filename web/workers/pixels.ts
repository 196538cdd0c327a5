/** The pixels of a picture at an address of the server's. @throws Error when it cannot be fetched */
export async function pixelsAt(url: string): Promise<ImageData> {
  const response = await fetch(url);
  if (!response.ok) throw new Error('The picture could not be fetched.');
  const bitmap = await createImageBitmap(await response.blob());
  const context = new OffscreenCanvas(bitmap.width, bitmap.height).getContext('2d')!;
  context.drawImage(bitmap, 0, 0);
  return context.getImageData(0, 0, bitmap.width, bitmap.height);
}
