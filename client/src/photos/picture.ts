import type { Picture } from "../figure/PhotoStage";

/** The longer edge of what is shown and, if at all, kept: enough for a point, and no more than the server takes. */
const edge = 1600;

/**
 * Any picture the browser can show, turned upright and made small; nothing of what a camera writes beside the picture (place,
 * time, device) is left in it.
 */
export async function pictureOf(file: Blob): Promise<Picture & { blob: Blob }> {
  const url = URL.createObjectURL(file);
  try {
    const image = new Image();
    image.src = url;
    await image.decode();
    const scale = Math.min(1, edge / Math.max(image.naturalWidth, image.naturalHeight));
    const canvas = document.createElement("canvas");
    canvas.width = Math.round(image.naturalWidth * scale);
    canvas.height = Math.round(image.naturalHeight * scale);
    canvas.getContext("2d")?.drawImage(image, 0, 0, canvas.width, canvas.height);
    const blob = await new Promise<Blob | null>((done) => canvas.toBlob(done, "image/jpeg", 0.85));
    if (!blob) throw new Error("This picture cannot be read.");
    return { url: URL.createObjectURL(blob), width: canvas.width, height: canvas.height, blob };
  } catch {
    throw new Error("This is no picture that can be shown. Choose a JPEG or PNG.");
  } finally {
    URL.revokeObjectURL(url);
  }
}
