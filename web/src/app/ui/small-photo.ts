const LARGEST = 1600;

/** A photograph no larger than it need be: at most 1600 px on its longer side, as JPEG. What cannot be drawn is refused. */
export async function smallPhoto(file: Blob): Promise<Blob> {
  const bitmap = await createImageBitmap(file).catch(() => undefined);
  if (!bitmap) throw new Error('This file is not a picture that can be shown. Example: a JPEG or PNG from the camera');
  const scale = Math.min(1, LARGEST / Math.max(bitmap.width, bitmap.height));
  const canvas = document.createElement('canvas');
  [canvas.width, canvas.height] = [Math.round(bitmap.width * scale), Math.round(bitmap.height * scale)];
  canvas.getContext('2d')?.drawImage(bitmap, 0, 0, canvas.width, canvas.height);
  bitmap.close();
  return new Promise((resolve, reject) =>
    canvas.toBlob((blob) => (blob ? resolve(blob) : reject(new Error('The picture could not be made smaller.'))), 'image/jpeg', 0.85),
  );
}
