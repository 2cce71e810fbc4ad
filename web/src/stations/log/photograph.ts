/** A photograph made small enough to keep: at most 1600 pixels a side, as JPEG; what cannot be drawn is refused in words. */
const MOST_PIXELS = 1600;
const MOST_BYTES = 40_000_000;

export function fitted(width: number, height: number, most = MOST_PIXELS): { width: number; height: number } {
  const scale = Math.min(1, most / Math.max(width, height, 1));
  return { width: Math.max(1, Math.round(width * scale)), height: Math.max(1, Math.round(height * scale)) };
}

export async function shrunk(file: File): Promise<Blob> {
  if (file.size > MOST_BYTES) throw new Error("The picture is over 40 MB: take a smaller one.");
  let picture: ImageBitmap;
  try {
    picture = await createImageBitmap(file);
  } catch {
    throw new Error("This is no picture the browser can show: choose a JPEG or PNG.");
  }
  const size = fitted(picture.width, picture.height);
  const canvas = document.createElement("canvas");
  canvas.width = size.width;
  canvas.height = size.height;
  canvas.getContext("2d")?.drawImage(picture, 0, 0, size.width, size.height);
  picture.close();
  return new Promise((resolve, reject) =>
    canvas.toBlob(
      (blob) => (blob ? resolve(blob) : reject(new Error("The picture could not be made smaller."))),
      "image/jpeg",
      0.82,
    ),
  );
}
