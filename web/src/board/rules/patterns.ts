/** Whether a name fits a pattern, in which * stands for any letters and ? for one, or any of several with commas between. */
export function fits(patterns: string, name: string) {
  const letters = (p: string) =>
    p
      .replace(/[.+^${}()|[\]\\]/g, '\\$&')
      .replace(/\*/g, '.*')
      .replace(/\?/g, '.')
  return patterns.split(',').some((p) => new RegExp(`^${letters(p.trim())}$`).test(name))
}
