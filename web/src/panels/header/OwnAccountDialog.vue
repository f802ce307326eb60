<script setup lang="ts">
import { reactive, ref, shallowRef, watch } from 'vue'
import { api, type OpenSession, type OwnAccount } from '../../api/client'
import { useRefusal } from '../shared/refusal'
import { moment } from '../shared/moment'

/** One's own account: another password, and where one is signed in. */
const open = defineModel<boolean>({ required: true })
const own = shallowRef<OwnAccount | null>(null)
const change = reactive({ present: '', next: '' })
const { refused, attempt } = useRefusal()
const told = ref('')

watch(open, (is) => {
  Object.assign(change, { present: '', next: '' })
  told.value = ''
  if (is) void show(api.ownAccount())
})
function show(known: Promise<OwnAccount>): Promise<boolean> {
  return attempt(async () => (own.value = await known))
}
async function keep() {
  if (!(await show(api.changePassword(change.present, change.next)))) return
  Object.assign(change, { present: '', next: '' })
  told.value = 'The new password is kept. Wherever else you were signed in, you are signed out.'
}
async function end(s: OpenSession) {
  if (await attempt(() => api.endSession(s.id))) await show(api.ownAccount())
}
/** Browser and operating system in words, from the user agent that was sent at the sign-in. */
function program(s: OpenSession): string {
  const browser = /(Firefox|Edg|Chrome|Safari)\//.exec(s.program)?.[1] ?? 'A program'
  const machine = /(Windows|Mac OS|Linux|Android|iPhone|iPad)/.exec(s.program)?.[1]
  const name = browser === 'Edg' ? 'Edge' : browser
  return machine ? `${name} on ${machine}` : name
}
</script>

<template>
  <v-dialog v-model="open" max-width="520">
    <v-card title="Your account">
      <v-card-text class="own">
        <p v-if="refused" class="problem" role="alert">{{ refused }}</p>
        <p v-if="told" role="status">{{ told }}</p>
        <form @submit.prevent="keep">
          <b>Another password</b>
          <label>
            Present password
            <input
              v-model="change.present"
              class="field"
              type="password"
              maxlength="200"
              autocomplete="current-password"
            />
          </label>
          <label>
            New password
            <input
              v-model="change.next"
              class="field"
              type="password"
              maxlength="200"
              autocomplete="new-password"
            />
          </label>
          <v-btn type="submit" :disabled="!change.present || !change.next">Keep it</v-btn>
        </form>
        <b>Where you are signed in</b>
        <ul>
          <li v-for="s in own?.sessions ?? []" :key="s.id">
            <span
              >{{ program(s) }} <span class="soft small">{{ s.address }}</span></span
            >
            <span class="soft small">{{ s.own ? 'here' : `last seen ${moment(s.seen)}` }}</span>
            <v-btn v-if="!s.own" size="small" @click="end(s)">Sign out there</v-btn>
          </li>
        </ul>
        <v-btn
          v-if="(own?.sessions.length ?? 0) > 1"
          size="small"
          class="others"
          @click="show(api.endOtherSessions())"
          >Sign out everywhere else</v-btn
        >
      </v-card-text>
      <v-card-actions><v-btn @click="open = false">Close</v-btn></v-card-actions>
    </v-card>
  </v-dialog>
</template>

<style scoped>
.own {
  display: grid;
  gap: 10px;
}
form {
  display: grid;
  gap: 8px;
  justify-items: start;
}
label {
  display: grid;
  grid-template-columns: 130px 240px;
  align-items: center;
}
ul {
  margin: 0;
  padding: 0;
  list-style: none;
}
li {
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto auto;
  align-items: center;
  gap: 10px;
  padding: 4px 0;
  border-bottom: 1px solid var(--line);
}
.others {
  justify-self: start;
}
</style>
