/** What a code in a picture says; null where none is read in it. */
export async function qrIn(source: CanvasImageSource, width: number, height: number): Promise<string | null> {
  const { default: read } = await import("jsqr");
  const canvas = document.createElement("canvas");
  // More than this is slower and not surer.
  const scale = Math.min(1, 1400 / Math.max(width, height));
  canvas.width = Math.round(width * scale);
  canvas.height = Math.round(height * scale);
  const context = canvas.getContext("2d", { willReadFrequently: true });
  if (!context || canvas.width === 0) return null;
  context.drawImage(source, 0, 0, canvas.width, canvas.height);
  const { data } = context.getImageData(0, 0, canvas.width, canvas.height);
  return read(data, canvas.width, canvas.height)?.data ?? null;
}

/** A code in a photograph. */
export async function qrInPhoto(file: Blob): Promise<string | null> {
  const photo = await createImageBitmap(file);
  try {
    return await qrIn(photo, photo.width, photo.height);
  } finally {
    photo.close();
  }
}
