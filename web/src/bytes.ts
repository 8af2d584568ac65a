/** Arrays that come as base64 of little-endian numbers. */

export function bytesOf(text: string): Uint8Array<ArrayBuffer> {
  const found = atob(text);
  const bytes = new Uint8Array(found.length);
  for (let i = 0; i < found.length; i++) bytes[i] = found.charCodeAt(i);
  return bytes;
}

export const wordsOf = (text: string): Uint32Array => new Uint32Array(bytesOf(text).buffer);

export const floatsOf = (text: string): Float32Array => new Float32Array(bytesOf(text).buffer);
