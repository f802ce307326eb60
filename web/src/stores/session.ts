import { defineStore } from 'pinia'
import { ref } from 'vue'
import { api, type Account } from '../api/client'

/** Who is signed in. */
export const useSession = defineStore('session', () => {
  const account = ref<Account | null>(null)
  let asked = false

  /** The account of a session that is still open, asked for once. */
  async function resume(): Promise<Account | null> {
    if (!asked) {
      asked = true
      account.value = await api.currentAccount().catch(() => null)
    }
    return account.value
  }

  async function signIn(login: string, password: string) {
    account.value = await api.signIn(login, password)
  }

  async function createFirst(login: string, displayName: string, password: string) {
    account.value = await api.createFirst(login, displayName, password)
  }

  async function signOut() {
    await api.signOut()
    account.value = null
  }

  function lost() {
    account.value = null
  }

  return { account, resume, signIn, createFirst, signOut, lost }
})
