/** Largest file that is sent as it is, bytes; the server says the same of what is larger. */
export const mostBytes = 5 * 1024 * 1024;

/** The content of a file as base64. */
export async function contentOf(file: File): Promise<string> {
  const bytes = new Uint8Array(await file.arrayBuffer());
  let text = '';
  for (let i = 0; i < bytes.length; i += 0x8000) text += String.fromCharCode(...bytes.subarray(i, i + 0x8000));
  return btoa(text);
}

/** Why a file is not even looked at; undefined where it is. */
export const tooLarge = (file: File) =>
  file.size > mostBytes
    ? `${file.name} has ${(file.size / 1024 / 1024).toFixed(0)} MB; at most ${mostBytes / 1024 / 1024} MB are read.`
    : undefined;
