<script setup lang="ts">
import { useQueryClient } from "@tanstack/vue-query";
import { computed } from "vue";
import { api, data, type Schemas } from "../api/client";
import { attempt } from "../shared/notices";
import { isLead } from "../team/session";

const props = defineProps<{ draft: Schemas["PlanDraft"]; groups: Schemas["GroupView"][] }>();
const emit = defineEmits<{ close: [] }>();
const client = useQueryClient();
const nameOf = (key: string) => props.groups.find((group) => group.key === key)?.name ?? key;
const better = computed(() => props.draft.cost - props.draft.costNow);
async function end(action: Promise<unknown>, said: string) {
  const ok = await attempt(() => action, said);
  await client.invalidateQueries();
  if (ok) emit("close");
}
const params = computed(() => ({ params: { path: { id: props.draft.id } } }));
const accept = () => end(data(api.POST("/api/v1/waves/plans/{id}/accept", params.value)), `Plan ${props.draft.id} accepted`);
const discard = () => end(data(api.DELETE("/api/v1/waves/plans/{id}", params.value)), `Plan ${props.draft.id} discarded`);
</script>

<template>
  <v-dialog :model-value="true" max-width="760" @update:model-value="emit('close')">
    <div class="sheet" role="dialog" :aria-label="`Plan ${draft.id}`">
      <header>
        <h2>Plan {{ draft.id }}, a draft by {{ draft.person }}</h2>
        <p class="dim">
          {{ draft.moves.length }} groups move; cost {{ draft.cost.toFixed(0) }}, {{ better <= 0 ? "" : "+" }}{{ better.toFixed(0) }} against now (more groups placed cost more){{ draft.converged ? "" : "; the search was cut short" }}.
        </p>
      </header>
      <div class="body">
        <p v-if="!draft.moves.length" class="empty">The plan as it stands cannot be bettered by this planner.</p>
        <table v-else class="t-table">
          <thead><tr><th>Group</th><th>From</th><th>To</th><th>Why</th></tr></thead>
          <tbody>
            <tr v-for="move in draft.moves" :key="move.group">
              <td><b>{{ nameOf(move.group) }}</b> <span class="dim">{{ move.group }}</span></td>
              <td class="dim">{{ move.from ?? "no wave" }}</td>
              <td>{{ move.to ?? "no wave" }}</td>
              <td class="why dim">{{ move.reason }}</td>
            </tr>
          </tbody>
        </table>
        <template v-if="Object.keys(draft.unplaced).length">
          <h3 class="cap">Fits nowhere</h3>
          <p v-for="(why, group) in draft.unplaced" :key="group"><b>{{ nameOf(String(group)) }}</b> <span class="dim">{{ why }}</span></p>
        </template>
      </div>
      <footer>
        <v-btn @click="emit('close')">Decide later</v-btn>
        <v-btn v-if="isLead" @click="discard">Discard</v-btn>
        <v-btn v-if="isLead && draft.moves.length" class="go" @click="accept">Accept plan {{ draft.id }}</v-btn>
      </footer>
    </div>
  </v-dialog>
</template>

<style scoped>
.why { white-space: normal !important; font-size: 12px; }
h3 { margin: 14px 0 4px; }
</style>
