<script setup lang="ts">
import { onMounted, reactive, ref, shallowRef } from 'vue'
import { api, type OtherAccount } from '../../api/client'
import { useSession } from '../../stores/session'
import { useRefusal } from '../shared/refusal'
import { moment } from '../shared/moment'

/** Everybody's accounts, what an administrator does with them, and a form for another one. */
const session = useSession()
const accounts = shallowRef<OtherAccount[]>([])
const fresh = reactive({ login: '', name: '', password: '' })
const { refused, attempt } = useRefusal()
const told = ref('')

onMounted(() => show(api.accounts()))

function show(known: Promise<OtherAccount[]>): Promise<boolean> {
  told.value = ''
  return attempt(async () => (accounts.value = await known))
}
async function make() {
  const done = await attempt(async () => {
    const made = await api.createAccount({ ...fresh })
    accounts.value = await api.accounts()
    told.value = `${made.displayName} signs in as ${made.login}, and chooses another password then.`
  })
  if (done) Object.assign(fresh, { login: '', name: '', password: '' })
}
async function replace(a: OtherAccount) {
  await attempt(async () => {
    const word = await api.replacePassword(a.id)
    accounts.value = await api.accounts()
    told.value = `${a.name} signs in once with  ${word}  and chooses another password then. It is not shown again.`
  })
}
async function end(a: OtherAccount) {
  await attempt(() => api.endSessionsOf(a.id))
  if (!refused.value) told.value = `${a.name} is signed out everywhere.`
}
function state(a: OtherAccount): string {
  if (a.shut) return 'shut'
  if (a.passwordDue) return 'has a password for one time'
  return a.seen ? `signed in ${moment(a.seen)}` : 'never signed in'
}
</script>

<template>
  <p v-if="refused" class="problem" role="alert">{{ refused }}</p>
  <p v-if="told" role="status" class="told">{{ told }}</p>
  <ul>
    <li v-for="a in accounts" :key="a.id" :class="{ shut: a.shut }">
      <span class="who"
        ><b>{{ a.name }}</b> <span class="soft">{{ a.login }}</span></span
      >
      <span class="soft small">{{ state(a) }}{{ a.administrator ? ' · looks after accounts' : '' }}</span>
      <v-menu>
        <template #activator="{ props: menu }">
          <v-btn size="small" v-bind="menu" :aria-label="`Change ${a.login}`">Change</v-btn>
        </template>
        <v-list density="compact">
          <v-list-item title="Password for one time" @click="replace(a)" />
          <v-list-item title="Sign out everywhere" @click="end(a)" />
          <v-list-item
            :title="a.administrator ? 'Look after accounts no longer' : 'Look after accounts, too'"
            @click="show(api.makeAdministrator(a.id, !a.administrator))"
          />
          <v-list-item
            v-if="a.id !== session.account?.id"
            :title="a.shut ? 'Open the account' : 'Shut the account'"
            @click="show(api.shutAccount(a.id, !a.shut))"
          />
        </v-list>
      </v-menu>
    </li>
  </ul>
  <form @submit.prevent="make">
    <b>Another account</b>
    <label>Signs in as <input v-model="fresh.login" class="field" maxlength="64" autocomplete="off" /></label>
    <label>Name shown <input v-model="fresh.name" class="field" maxlength="100" /></label>
    <label>
      First password
      <input
        v-model="fresh.password"
        class="field"
        type="password"
        maxlength="200"
        autocomplete="new-password"
      />
    </label>
    <v-btn type="submit" :disabled="!fresh.login || !fresh.password">Make the account</v-btn>
  </form>
</template>

<style scoped>
ul {
  margin: 0;
  padding: 0;
  list-style: none;
  max-height: 240px;
  overflow: auto;
}
li {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 1fr) auto;
  align-items: center;
  gap: 10px;
  padding: 3px 0;
  border-bottom: 1px solid var(--line);
}
.who {
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.shut .who {
  text-decoration: line-through;
}
.told {
  white-space: pre-wrap;
  user-select: text;
}
form {
  display: grid;
  gap: 8px;
  justify-items: start;
}
label {
  display: grid;
  grid-template-columns: 110px 240px;
  align-items: center;
}
</style>
