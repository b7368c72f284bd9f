<script setup lang="ts">
import { useQuery, useQueryClient } from "@tanstack/vue-query";
import { ref } from "vue";
import { api, data } from "../api/client";
import { time } from "../shared/format";
import { attempt } from "../shared/notices";
import { useProgramme } from "../shared/queries";
import { isLead } from "../team/session";

const emit = defineEmits<{ close: [] }>();
const client = useQueryClient();
const { zone } = useProgramme();
const asked = ref<number>();
const { data: readings } = useQuery({
  queryKey: ["inventory", "accepted"],
  queryFn: () => data(api.GET("/api/v1/inventory/readings/accepted")),
});
async function undo(id: number) {
  asked.value = undefined;
  await attempt(() => data(api.POST("/api/v1/inventory/readings/{id}/undo", { params: { path: { id } } })), "Reading taken back");
  await client.invalidateQueries();
}
</script>

<template>
  <v-dialog :model-value="true" max-width="720" @update:model-value="emit('close')">
    <div class="sheet" role="dialog" aria-label="Accepted readings">
      <header>
        <h2>Accepted readings</h2>
        <p class="dim">Undo takes a whole reading back: the facts it brought, the objects it added and those it called gone.</p>
      </header>
      <div class="body">
        <p v-if="readings?.length === 0" class="empty">No reading has been accepted yet.</p>
        <table v-else class="t-table">
          <thead><tr><th>Source</th><th>Read</th><th>Accepted</th><th>By</th><th /></tr></thead>
          <tbody>
            <tr v-for="one in readings" :key="one.id">
              <td><b>{{ one.source }}</b></td>
              <td class="dim">{{ time(one.at, zone) }}</td>
              <td class="dim">{{ time(one.acceptedAt, zone) }}</td>
              <td>{{ one.acceptedBy }}</td>
              <td class="num">
                <span v-if="one.undone" class="dim">taken back</span>
                <template v-else-if="isLead && asked === one.id">
                  <v-btn class="danger" @click="undo(one.id)">Take back {{ one.source }}</v-btn> <v-btn @click="asked = undefined">Keep</v-btn>
                </template>
                <v-btn v-else-if="isLead" @click="asked = one.id">Undo…</v-btn>
              </td>
            </tr>
          </tbody>
        </table>
      </div>
      <footer><v-btn @click="emit('close')">Close</v-btn></footer>
    </div>
  </v-dialog>
</template>
