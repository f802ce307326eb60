<script setup lang="ts">
import { ref, watch } from 'vue'
import { api } from '../../api/client'
import { useRefusal } from '../shared/refusal'
import AccountList from './AccountList.vue'
import AuditList from './AuditList.vue'
import LetterList from './LetterList.vue'

/** Accounts of everybody, letters to be passed on, and what was done; for administrators. */
const open = defineModel<boolean>({ required: true })
const { refused, attempt } = useRefusal()
const may = ref(false)
const shown = ref<'people' | 'letters' | 'audit'>('people')
const TABS = { people: 'People', letters: 'Letters', audit: 'What was done' } as const

watch(open, async (is) => {
  if (!is) return
  shown.value = 'people'
  may.value = await attempt(api.accounts)
})
</script>

<template>
  <v-dialog v-model="open" max-width="640">
    <v-card title="People who may sign in">
      <v-card-text class="accounts">
        <p v-if="refused" class="problem" role="alert">{{ refused }}</p>
        <template v-if="may">
          <nav role="tablist" aria-label="Of accounts">
            <button
              v-for="(name, id) in TABS"
              :key="id"
              type="button"
              role="tab"
              class="plain"
              :aria-selected="shown === id"
              :class="{ on: shown === id }"
              @click="shown = id"
            >
              {{ name }}
            </button>
          </nav>
          <AccountList v-if="shown === 'people'" />
          <LetterList v-else-if="shown === 'letters'" />
          <AuditList v-else />
        </template>
      </v-card-text>
      <v-card-actions><v-btn @click="open = false">Close</v-btn></v-card-actions>
    </v-card>
  </v-dialog>
</template>

<style scoped>
.accounts {
  display: grid;
  gap: 10px;
}
nav {
  display: flex;
  gap: 18px;
  border-bottom: 1px solid var(--line);
}
nav button {
  padding: 4px 0;
  border-bottom: 2px solid transparent;
}
nav .on {
  border-bottom-color: var(--accent);
}
</style>
