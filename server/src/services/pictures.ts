import { imageSize } from 'image-size';
import { RefusalError } from '../errors.ts';

/** What a picture turned out to be when its bytes were looked at. */
export interface Picture {
  readonly mediaType: 'image/jpeg' | 'image/png' | 'image/webp';
  readonly width: number;
  readonly height: number;
}

const MEDIA_TYPES: Readonly<Record<string, Picture['mediaType']>> = {
  jpg: 'image/jpeg',
  png: 'image/png',
  webp: 'image/webp',
};

/** Largest picture: a small file can claim to unfold to far more than a page should hold in memory. */
export const MOST_PIXELS = 40_000_000;
const MOST_SIDE = 12_000;

/** Looks at the bytes, not at the name: what kind of picture they are and how large it unfolds. */
export function examinePicture(bytes: Uint8Array): Picture {
  let found: { type?: string | undefined; width: number; height: number };
  try {
    found = imageSize(bytes);
  } catch {
    throw new RefusalError('NOT_A_PICTURE');
  }
  const mediaType = MEDIA_TYPES[found.type ?? ''];
  if (mediaType === undefined || !isComplete(bytes, mediaType)) throw new RefusalError('NOT_A_PICTURE');
  const { width, height } = found;
  if (!(width > 0 && height > 0)) throw new RefusalError('NOT_A_PICTURE');
  if (width > MOST_SIDE || height > MOST_SIDE || width * height > MOST_PIXELS)
    throw new RefusalError('PICTURE_TOO_LARGE');
  return { mediaType, width, height };
}

/** Whether a picture ends as its kind ends; half a file, or a page behind a picture's head, does not. */
function isComplete(bytes: Uint8Array, mediaType: Picture['mediaType']): boolean {
  const buffer = Buffer.from(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  switch (mediaType) {
    case 'image/jpeg':
      return buffer.lastIndexOf(Buffer.from([0xff, 0xd9])) >= buffer.length - 64;
    case 'image/png':
      return buffer.subarray(-12).includes('IEND');
    case 'image/webp':
      return buffer.length >= 12 && buffer.readUInt32LE(4) + 8 <= buffer.length + 1;
  }
}
