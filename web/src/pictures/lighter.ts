/** A picture made lighter before it waits on this machine and goes out; one that this browser cannot read goes as it is. */
const LONGEST = 2560;
const LIGHT = 1_500_000;

export async function lighter(file: Blob): Promise<Blob> {
  if (file.size <= LIGHT) return file;
  try {
    const whole = await createImageBitmap(file, { imageOrientation: 'from-image' });
    const share = Math.min(1, LONGEST / Math.max(whole.width, whole.height));
    const canvas = document.createElement('canvas');
    canvas.width = Math.round(whole.width * share);
    canvas.height = Math.round(whole.height * share);
    canvas.getContext('2d')?.drawImage(whole, 0, 0, canvas.width, canvas.height);
    whole.close();
    const made = await new Promise<Blob | null>((done) => canvas.toBlob(done, 'image/jpeg', 0.92));
    return made && made.size < file.size ? made : file;
  } catch {
    return file;
  }
}
