<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { Refusal } from '../../api/client'
import { useSession } from '../../stores/session'
import { counted, useWorkspace } from '../../stores/workspace'

/** Over an open page whose session has ended: the page stays as it is, and what waits is sent afterwards. */
const session = useSession()
const workspace = useWorkspace()
const password = ref('')
/** The password from now on, where the present one was for one time only; null otherwise. */
const next = ref<string | null>(null)
const problem = ref('')
const busy = ref(false)
const field = ref<HTMLInputElement | null>(null)

watch(
  () => session.ended,
  () => {
    password.value = ''
    next.value = null
    problem.value = ''
  },
)

const waits = computed(() =>
  workspace.pending > 0
    ? `The page stays as it is; ${counted(workspace.pending, 'change')} will be sent as soon as you are back.`
    : 'The page stays as it is.',
)

async function go() {
  busy.value = true
  problem.value = ''
  try {
    await session.signIn(session.account?.login ?? '', password.value, next.value)
  } catch (e) {
    if (e instanceof Refusal && e.type === 'password-due') next.value ??= ''
    problem.value = e instanceof Refusal ? e.message : 'Signing in failed. Try again.'
  } finally {
    busy.value = false
  }
}
</script>

<template>
  <v-dialog :model-value="session.ended" persistent width="380" @after-enter="field?.focus()">
    <form class="sheet" role="dialog" aria-label="Sign in again" @submit.prevent="go">
      <h1>You are signed out</h1>
      <p class="soft">{{ waits }}</p>
      <label>
        Account
        <input class="field" :value="session.account?.login" name="login" autocomplete="username" readonly />
      </label>
      <label>
        Password
        <input
          ref="field"
          v-model="password"
          class="field"
          name="password"
          type="password"
          autocomplete="current-password"
          required
        />
      </label>
      <label v-if="next !== null">
        New password
        <input
          v-model="next"
          class="field"
          name="next"
          type="password"
          autocomplete="new-password"
          minlength="10"
          required
        />
      </label>
      <p v-if="problem" class="problem" role="alert">{{ problem }}</p>
      <v-btn type="submit" color="primary" variant="flat" :loading="busy" block height="32"
        >Sign in and go on</v-btn
      >
    </form>
  </v-dialog>
</template>

<style scoped>
.sheet {
  background: var(--paper);
  border-radius: var(--radius);
  padding: 24px;
  display: flex;
  flex-direction: column;
  gap: 12px;
}
h1 {
  font-size: 18px;
  font-weight: 650;
}
h1,
p {
  margin: 0;
}
.field {
  margin-top: 3px;
  height: 32px;
}
</style>
