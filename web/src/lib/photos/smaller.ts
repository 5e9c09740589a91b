const MOST_PX = 2560;

/** A picture as a JPEG whose longer side has at most 2560 px. Rejects what the browser cannot read. */
export async function smaller(file: Blob): Promise<Blob> {
  const bitmap = await createImageBitmap(file);
  const f = Math.min(1, MOST_PX / Math.max(bitmap.width, bitmap.height));
  const canvas = document.createElement('canvas');
  canvas.width = Math.round(bitmap.width * f);
  canvas.height = Math.round(bitmap.height * f);
  canvas.getContext('2d')?.drawImage(bitmap, 0, 0, canvas.width, canvas.height);
  bitmap.close();
  return new Promise((done, fail) =>
    canvas.toBlob((b) => (b ? done(b) : fail(new Error('it could not be made smaller'))), 'image/jpeg', 0.88),
  );
}
