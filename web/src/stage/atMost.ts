/**
 * The same work, with no more than {@code n} pieces of it under way at once: a browser gives up on requests when thousands
 * wait.
 */
export function atMost<A, T>(n: number, work: (a: A) => Promise<T>): (a: A) => Promise<T> {
  let running = 0
  const waiting: (() => void)[] = []
  return async (a) => {
    if (running >= n) await new Promise<void>((go) => waiting.push(go))
    else running++
    try {
      return await work(a)
    } finally {
      const next = waiting.shift()
      if (next) next()
      else running--
    }
  }
}
