/** Longer side that is sent, pixels: enough for a strand on a ply, and little for a slow network. */
const LONGEST = 2048;
const QUALITY = 0.85;

/** A picture of any kind that the browser reads, upright and scaled down, as a JPEG. @throws Error in words where it reads none */
export async function scaledPicture(file: Blob): Promise<Blob> {
  const bitmap = await createImageBitmap(file, { imageOrientation: 'from-image' }).catch(() => {
    throw new Error('This is no picture that can be read here. Take it again, or save it as JPEG.');
  });
  const scale = Math.min(1, LONGEST / Math.max(bitmap.width, bitmap.height));
  const canvas = document.createElement('canvas');
  canvas.width = Math.max(1, Math.round(scale * bitmap.width));
  canvas.height = Math.max(1, Math.round(scale * bitmap.height));
  canvas.getContext('2d')!.drawImage(bitmap, 0, 0, canvas.width, canvas.height);
  bitmap.close();
  return new Promise((resolve, reject) =>
    canvas.toBlob(
      (made) =>
        made ? resolve(made) : reject(new Error('The picture could not be made smaller. Take it again.')),
      'image/jpeg',
      QUALITY,
    ),
  );
}
