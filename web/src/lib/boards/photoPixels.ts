/** The pixels of a stored photo; null when it cannot be read. */
export async function photoPixels(photoId: string): Promise<ImageData | null> {
  const answer = await fetch(`/api/photos/${photoId}`).catch(() => undefined);
  if (!answer?.ok) return null;
  const bitmap = await createImageBitmap(await answer.blob());
  const canvas = document.createElement('canvas');
  canvas.width = bitmap.width;
  canvas.height = bitmap.height;
  const ctx = canvas.getContext('2d', { willReadFrequently: true });
  ctx?.drawImage(bitmap, 0, 0);
  bitmap.close();
  return ctx?.getImageData(0, 0, canvas.width, canvas.height) ?? null;
}
