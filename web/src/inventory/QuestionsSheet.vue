<script setup lang="ts">
import { useQuery } from "@tanstack/vue-query";
import { api, data } from "../api/client";

const emit = defineEmits<{ close: [] }>();
const { data: owners } = useQuery({
  queryKey: ["inventory", "questions"],
  queryFn: () => data(api.GET("/api/v1/inventory/questions")),
});
const address = (owner: string) => `/api/v1/inventory/questions/file?owner=${encodeURIComponent(owner)}`;
</script>

<template>
  <v-dialog :model-value="true" max-width="560" @update:model-value="emit('close')">
    <div class="sheet" role="dialog" aria-label="Ask the owners">
      <header>
        <h2>Ask the owners</h2>
        <p class="dim">A file for each owner, with what is known filled in. They fill the empty cells; then read the file here.</p>
      </header>
      <div class="body">
        <p v-if="owners?.length === 0" class="empty">Everything that a move needs is known.</p>
        <table v-else class="t-table">
          <thead><tr><th>Owner</th><th class="num">Databases</th><th class="num">Questions</th><th /></tr></thead>
          <tbody>
            <tr v-for="one in owners" :key="one.owner">
              <td><b v-if="one.owner">{{ one.owner }}</b><span v-else class="look">nobody known: ask around</span></td>
              <td class="num">{{ one.databases }}</td>
              <td class="num">{{ one.gaps }}</td>
              <td class="num"><a class="link" :href="address(one.owner)" download>Download their file</a></td>
            </tr>
          </tbody>
        </table>
      </div>
      <footer><v-btn @click="emit('close')">Close</v-btn></footer>
    </div>
  </v-dialog>
</template>
