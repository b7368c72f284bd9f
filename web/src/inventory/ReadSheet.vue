<script setup lang="ts">
import { useQuery } from "@tanstack/vue-query";
import { ref } from "vue";
import { api, data, type Schemas } from "../api/client";
import { isLead } from "../team/session";
import BundleReads from "../bundles/BundleReads.vue";
import FileReads from "./FileReads.vue";
import MetricReads from "./MetricReads.vue";
import ServerReads from "./ServerReads.vue";

const emit = defineEmits<{ close: []; read: [id: number]; map: [file: Schemas["FileToMap"]] }>();
const part = ref<"file" | "server" | "metrics" | "collector">("file");
const { data: servers } = useQuery({
  queryKey: ["servers"],
  queryFn: () => data(api.GET("/api/v1/inventory/servers")),
});
</script>

<template>
  <v-dialog :model-value="true" max-width="640" @update:model-value="emit('close')">
    <div class="sheet" role="dialog" aria-label="Read a file or a server">
      <header>
        <h2>Read a file or a server</h2>
        <div class="tabs" role="tablist">
          <button role="tab" :aria-selected="part === 'file'" @click="part = 'file'">A file</button>
          <button role="tab" :aria-selected="part === 'server'" @click="part = 'server'">A live server</button>
          <button role="tab" :aria-selected="part === 'metrics'" @click="part = 'metrics'">A metrics server</button>
          <button role="tab" :aria-selected="part === 'collector'" @click="part = 'collector'">A collector</button>
        </div>
      </header>
      <div class="body">
        <FileReads v-if="part === 'file'" @read="(id) => emit('read', id)" @map="(file) => emit('map', file)" />
        <ServerReads v-else-if="part === 'server'" :servers="servers ?? []" :may-list="isLead" @read="(id) => emit('read', id)" />
        <MetricReads v-else-if="part === 'metrics'" :may-list="isLead" />
        <BundleReads v-else @read="(id) => emit('read', id)" />
      </div>
      <footer><v-btn @click="emit('close')">Close</v-btn></footer>
    </div>
  </v-dialog>
</template>

<style scoped>
.tabs { display: flex; gap: 16px; border-bottom: 1px solid var(--rule); margin-top: 8px; }
.tabs button { background: none; border: 0; font: inherit; color: var(--ink2); padding: 4px 0 6px; cursor: pointer; }
.tabs button[aria-selected="true"] { color: var(--current); font-weight: 650; box-shadow: inset 0 -2px var(--current); }
</style>
