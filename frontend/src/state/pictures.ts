/** What a picture of a sheet may be. */
export const PICTURES = "image/png,image/jpeg,image/tiff,application/pdf,.png,.jpg,.jpeg,.tif,.tiff,.pdf";

export const bytesOf = async (file: Blob) => new Uint8Array(await file.arrayBuffer());

/** How many bytes are written at a time. */
const AT_ONCE = 0x8000;

/** Bytes as they cross in JSON. */
export function base64Of(bytes: Uint8Array): string {
  let text = "";
  for (let at = 0; at < bytes.length; at += AT_ONCE)
    text += String.fromCharCode(...bytes.subarray(at, at + AT_ONCE));
  return btoa(text);
}

/** A picture of one student's sheet. */
export interface OneSheet {
  student: string;
  bytes: () => Promise<Uint8Array>;
}

const stem = (name: string) => name.replace(/^.*\//, "").replace(/\.[^.]*$/, "");

/** The sheets of a class: files, or what is in a zip; each file is called as its student. */
export async function sheetsIn(files: Iterable<File>): Promise<OneSheet[]> {
  const found: OneSheet[] = [];
  for (const file of files) {
    if (!file.name.toLowerCase().endsWith(".zip")) {
      if (!file.name.startsWith(".")) found.push({ student: stem(file.name), bytes: () => bytesOf(file) });
      continue;
    }
    const { unzipSync } = await import("fflate");
    const inside = unzipSync(await bytesOf(file));
    for (const [name, bytes] of Object.entries(inside))
      if (bytes.length > 0 && !name.endsWith("/"))
        found.push({ student: stem(name), bytes: () => Promise.resolve(bytes) });
  }
  return found.sort((a, b) => a.student.localeCompare(b.student));
}
