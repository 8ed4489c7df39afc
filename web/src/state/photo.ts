/** Longest side of what is kept, and of what is shown in a list, in points. */
const KEPT_SIDE = 2400;
const THUMBNAIL_SIDE = 320;
const QUALITY = 0.85;

async function redraw(bitmap: ImageBitmap, side: number): Promise<Blob> {
  const scale = Math.min(1, side / Math.max(bitmap.width, bitmap.height));
  const canvas = new OffscreenCanvas(
    Math.max(1, Math.round(bitmap.width * scale)),
    Math.max(1, Math.round(bitmap.height * scale)),
  );
  canvas.getContext('2d')?.drawImage(bitmap, 0, 0, canvas.width, canvas.height);
  return canvas.convertToBlob({ type: 'image/jpeg', quality: QUALITY });
}

/**
 * Draws a chosen picture anew: what travels holds the picture alone, without the place and the device that a camera writes
 * into its files. Undefined where the file is no picture.
 */
export async function preparePhoto(file: File): Promise<{ photo: Blob; thumbnail: Blob } | undefined> {
  if (!/^image\/(jpeg|png|webp)$/.test(file.type)) return undefined;
  let bitmap: ImageBitmap;
  try {
    bitmap = await createImageBitmap(file);
  } catch {
    return undefined;
  }
  try {
    return { photo: await redraw(bitmap, KEPT_SIDE), thumbnail: await redraw(bitmap, THUMBNAIL_SIDE) };
  } finally {
    bitmap.close();
  }
}
