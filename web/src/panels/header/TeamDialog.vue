<script setup lang="ts">
import { ref, shallowRef, watch } from 'vue'
import { api, type Colleague } from '../../api/client'
import { useSession } from '../../stores/session'
import { useWorkspace } from '../../stores/workspace'
import { useRefusal } from '../shared/refusal'

/** Who works on the project. */
const open = defineModel<boolean>({ required: true })
const workspace = useWorkspace()
const session = useSession()
const team = shallowRef<Colleague[]>([])
const login = ref('')
const { refused, attempt } = useRefusal()
const owns = () => team.value.some((c) => c.owner && c.id === session.account?.id)

watch(open, (is) => {
  refused.value = ''
  if (is) void show(api.team(workspace.id))
})
function show(known: Promise<Colleague[]>): Promise<boolean> {
  return attempt(async () => (team.value = await known))
}
async function join() {
  const who = login.value.trim()
  if (who && (await show(api.joinTeam(workspace.id, who)))) login.value = ''
}
</script>

<template>
  <v-dialog v-model="open">
    <v-card title="People on this project">
      <v-card-text class="team">
        <p class="soft small">
          All of them change it at the same time. Changes of different things go together; of the same thing
          the later one is asked first.
        </p>
        <p v-if="refused" class="problem" role="alert">{{ refused }}</p>
        <ul>
          <li v-for="c in team" :key="c.id">
            <b>{{ c.name }}</b> <span class="soft">{{ c.login }}</span>
            <span v-if="c.owner" class="soft small">made it</span>
            <button
              v-else-if="owns() || c.id === session.account?.id"
              class="plain small"
              @click="show(api.leaveTeam(workspace.id, c.id))"
            >
              {{ c.id === session.account?.id ? 'Leave' : 'Take out' }}
            </button>
          </li>
        </ul>
        <form v-if="owns()" @submit.prevent="join">
          <input
            v-model="login"
            class="field"
            placeholder="Account name"
            aria-label="Account name"
            maxlength="120"
          />
          <v-btn size="small" type="submit" :disabled="!login.trim()">Take in</v-btn>
        </form>
      </v-card-text>
      <v-card-actions><v-btn @click="open = false">Close</v-btn></v-card-actions>
    </v-card>
  </v-dialog>
</template>

<style scoped>
.team,
ul {
  display: grid;
  gap: 8px;
  margin: 0;
  padding-left: 0;
  list-style: none;
}
.team {
  padding: 0 24px;
}
form {
  display: grid;
  grid-template-columns: 1fr auto;
  gap: 8px;
}
li {
  display: flex;
  gap: 8px;
  align-items: baseline;
}
li button {
  color: var(--accent);
}
.problem {
  color: var(--red);
}
</style>
