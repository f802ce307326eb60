import { defineStore } from 'pinia'
import { ref } from 'vue'
import { api, type Account } from '../api/client'
import { useConnection } from './connection'

/** Who is signed in. */
export const useSession = defineStore('session', () => {
  const account = ref<Account | null>(null)
  /** True from the end of a session, with a page open, to the next sign-in; commands wait meanwhile. */
  const ended = ref(false)
  let asked = false
  let goOn: (() => void)[] = []

  useConnection().listeners.add((status) => {
    if (status === 401 && account.value) ended.value = true
  })

  /** The account of a session that is still open, asked for once. */
  async function resume(): Promise<Account | null> {
    if (!asked) {
      asked = true
      account.value = await api.currentAccount().catch(() => null)
    }
    return account.value
  }

  /** Signs in; over an open page, which goes on where it was, only as who it belongs to. */
  async function signIn(login: string, password: string, next: string | null = null) {
    const now = await api.signIn(login, password, next)
    if (ended.value && account.value && now.id !== account.value.id) {
      window.location.assign('/projects')
      return
    }
    account.value = now
    ended.value = false
    const waiting = goOn
    goOn = []
    waiting.forEach((f) => f())
  }

  /** Resolves once somebody is signed in. */
  function restored(): Promise<void> {
    return ended.value ? new Promise((resolve) => goOn.push(resolve)) : Promise.resolve()
  }

  async function createFirst(word: string, login: string, displayName: string, password: string) {
    account.value = await api.createFirst({ word, login, displayName, password })
  }

  /** Signs in with a password that is chosen now, by the word of a letter. */
  async function reset(word: string, password: string) {
    account.value = await api.resetPassword(word, password)
  }

  async function signOut() {
    await api.signOut()
    account.value = null
    ended.value = false
  }

  return { account, ended, resume, signIn, restored, createFirst, reset, signOut }
})
