import type { ProjectState } from '../api/client'

/** What the schemes of a project show, by scheme, all of one version: the newest that was read. */
export class StatesSeen {
  private readonly states = new Map<string, ProjectState>()
  private version = -1

  /** Keeps what was read; what is older than that is let go of. */
  keep(read: ProjectState): void {
    if (read.version < this.version) return
    if (read.version > this.version) this.states.clear()
    this.version = read.version
    this.states.set(read.scheme, read)
  }

  /** What a scheme shows, unless something has changed since it was read. */
  of(scheme: string): ProjectState | undefined {
    return this.states.get(scheme)
  }

  forget(): void {
    this.states.clear()
    this.version = -1
  }
}

/** Whether two states say the same, word for word. */
export function isSame(one: ProjectState, other: ProjectState): boolean {
  return (
    one.version === other.version &&
    one.scheme === other.scheme &&
    JSON.stringify(one) === JSON.stringify(other)
  )
}
