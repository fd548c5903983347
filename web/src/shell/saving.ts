/** Fetches a file of the program and hands it to the browser to keep; refusals are thrown with their sentence. Gives the answer's headers. */
export async function saveFile(path: string, name: string, signal?: AbortSignal): Promise<Headers> {
  const r = await fetch('/api' + path, { signal })
  if (!r.ok) throw new Error(((await r.json()) as { error: string }).error)
  keepBlob(await r.blob(), (r.headers.get('Content-Disposition') ?? '').match(/filename="(.+)"/)?.[1] ?? name)
  return r.headers
}

/** Hands data to the browser to keep under a name. */
export function keepBlob(data: Blob, name: string) {
  const a = document.createElement('a')
  a.href = URL.createObjectURL(data)
  a.download = name
  a.click()
  setTimeout(() => URL.revokeObjectURL(a.href), 10_000)
}
