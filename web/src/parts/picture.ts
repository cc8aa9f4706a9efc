/** A picture from this device's camera, made small enough to keep: base 64 of a JPEG. */

const LONGEST_SIDE = 1600;
const QUALITY = 0.8;

export async function smaller(file: File): Promise<string> {
  const image = await createImageBitmap(file);
  const scale = Math.min(1, LONGEST_SIDE / Math.max(image.width, image.height));
  const canvas = document.createElement("canvas");
  canvas.width = Math.round(image.width * scale);
  canvas.height = Math.round(image.height * scale);
  canvas.getContext("2d")?.drawImage(image, 0, 0, canvas.width, canvas.height);
  return canvas.toDataURL("image/jpeg", QUALITY).split(",")[1] ?? "";
}
