import { createJimp } from '@jimp/core';
import jpeg from '@jimp/js-jpeg';
import png from '@jimp/js-png';
import { methods as resizing } from '@jimp/plugin-resize';
import { MAX_PHOTO_PIXELS } from '@wick/contract/run/photo';
import { imageSize } from 'image-size';

const Image = createJimp({ formats: [jpeg, png], plugins: [resizing] });

/** Longer side that is kept, and that of a thumbnail, pixels. */
const LARGE = 1600;
const SMALL = 240;
const QUALITY = 82;

/** As it is kept: two JPEG files with nothing in them but the picture. */
export interface ScaledPicture {
  readonly large: Uint8Array;
  readonly small: Uint8Array;
  readonly width: number;
  readonly height: number;
}
export type Scaled =
  { readonly ok: true; readonly picture: ScaledPicture } | { readonly ok: false; readonly why: string };

const refused = (why: string): Scaled => ({ ok: false, why });

/**
 * Reads a JPEG or PNG, turns it upright and scales it down. It is written anew from its pixels: place, time and camera that were in
 * the file are not in it any more. What is said to be too large is refused before it is unpacked.
 */
export async function scalePicture(bytes: Uint8Array): Promise<Scaled> {
  const said = sizeSaid(bytes);
  if (!said) return refused('It is no JPEG or PNG picture. Save it as one of these and add it again.');
  if (!(said.width * said.height <= MAX_PHOTO_PIXELS))
    return refused(
      `It is ${said.width} by ${said.height} pixels, more than the ${MAX_PHOTO_PIXELS / 1e6} million that are taken. Make it smaller and add it again.`,
    );
  try {
    const image = await Image.fromBuffer(Buffer.from(bytes));
    const { width, height } = shrink(image, LARGE);
    const large = await image.getBuffer('image/jpeg', { quality: QUALITY });
    shrink(image, SMALL);
    return {
      ok: true,
      picture: { large, width, height, small: await image.getBuffer('image/jpeg', { quality: QUALITY }) },
    };
  } catch {
    return refused('It is cut short or damaged. Take it again, or save it anew.');
  }
}

interface Resized {
  readonly width: number;
  readonly height: number;
  resize(options: { w: number } | { h: number }): unknown;
}

function shrink(image: Resized, most: number): { width: number; height: number } {
  const { width, height } = image;
  if (Math.max(width, height) > most) image.resize(width >= height ? { w: most } : { h: most });
  return { width: image.width, height: image.height };
}

function sizeSaid(bytes: Uint8Array): { width: number; height: number } | null {
  try {
    const { type, width, height } = imageSize(bytes);
    return type === 'jpg' || type === 'png' ? { width, height } : null;
  } catch {
    return null;
  }
}
