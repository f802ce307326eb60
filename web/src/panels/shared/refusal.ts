import { ref } from 'vue'
import { Refusal } from '../../api/client'

/** For dialogs that say by themselves why something was refused. */
export function useRefusal() {
  const refused = ref('')

  /** Does something; false where it was refused, and then the reason is there to be shown. */
  async function attempt(work: () => Promise<unknown>): Promise<boolean> {
    refused.value = ''
    try {
      await work()
      return true
    } catch (e) {
      if (!(e instanceof Refusal)) throw e
      refused.value = e.message
      return false
    }
  }
  return { refused, attempt }
}
