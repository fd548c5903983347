/** Sends a file and tells how much of it has gone; the answer is that of the program. */
export function upload<T>(path: string, file: Blob, told: (share: number) => void): Promise<T> {
  return new Promise((done, failed) => {
    const r = new XMLHttpRequest() // fetch does not tell how far a request is
    r.upload.onprogress = (e) => e.lengthComputable && told(e.loaded / e.total)
    r.onload = () => {
      try {
        const answer = JSON.parse(r.responseText) as T & { error?: string }
        if (r.status >= 400) failed(new Error(answer.error ?? 'The program refused the file.'))
        else done(answer)
      } catch {
        failed(new Error('The program gave no readable answer.'))
      }
    }
    r.onerror = () => failed(new Error('The program cannot be reached.'))
    r.open('POST', '/api' + path)
    r.send(file)
  })
}
