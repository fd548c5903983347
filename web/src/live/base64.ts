/** A file's bytes as the wire carries them. */
export async function base64(f: Blob): Promise<string> {
  const bytes = new Uint8Array(await f.arrayBuffer())
  let s = ''
  for (let i = 0; i < bytes.length; i += 8192) s += String.fromCharCode(...bytes.subarray(i, i + 8192))
  return btoa(s)
}

/** The bytes of what the wire carried so. */
export const bytesOf = (text: string) => Uint8Array.from(atob(text), (c) => c.charCodeAt(0))
