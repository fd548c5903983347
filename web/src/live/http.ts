import type { Failure } from './wire.gen'

/** A refusal of the program, with its sentence. */
export class Refusal extends Error {
  constructor(
    message: string,
    readonly status: number,
    readonly findings = 0,
    readonly unjoined = 0,
    readonly open = 0,
  ) {
    super(message)
  }
}

export async function call<T>(method: string, path: string, body?: unknown, signal?: AbortSignal): Promise<T> {
  let res: Response
  try {
    res = await fetch('/api' + path, {
      method,
      signal,
      body: body instanceof Blob ? body : body === undefined ? undefined : JSON.stringify(body),
    })
  } catch {
    if (signal?.aborted) throw new Refusal('It was stopped; nothing was kept.', 0)
    throw new Refusal('The program does not answer. Is it still running?', 0)
  }
  if (!res.ok) {
    const f = (await res.json().catch(() => ({ error: `The program answered with ${res.status}.` }))) as Failure
    throw new Refusal(f.error, res.status, f.findings, f.unjoined, f.open)
  }
  return (res.status === 204 ? undefined : await res.json()) as T
}
