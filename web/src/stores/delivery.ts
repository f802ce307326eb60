import { newKey, Refusal, type Seen } from '../api/client'
import { useConnection } from './connection'
import { useSession } from './session'

/**
 * Sends a command until it is answered: again under the same key where the answer was lost, so that it is done once;
 * after signing in where the session has ended. Throws the refusal where the server has decided.
 */
export async function deliver<T>(
  version: number,
  scheme: string,
  command: (seen: Seen) => Promise<T>,
): Promise<T> {
  const connection = useConnection()
  const session = useSession()
  const seen = { version, scheme, key: newKey() }
  for (let tries = 0; ; tries++) {
    try {
      return await command(seen)
    } catch (e) {
      if (!(e instanceof Refusal) || !e.passes) throw e
      if (e.status === 401) await session.restored()
      else await connection.pause(tries)
    }
  }
}
