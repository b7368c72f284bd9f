<script setup lang="ts">
import { useQuery, useQueryClient } from "@tanstack/vue-query";
import { ref } from "vue";
import { api, data } from "../api/client";
import { attempt } from "../shared/notices";

const props = defineProps<{ address: string }>();
const emit = defineEmits<{ open: [address: string] }>();
const client = useQueryClient();
const key = ["inventory", "views"];
const { data: views } = useQuery({ queryKey: key, queryFn: () => data(api.GET("/api/v1/inventory/views")) });
const name = ref("");
async function save() {
  if (!name.value.trim()) return;
  await attempt(async () => {
    client.setQueryData(key, await data(api.PUT("/api/v1/inventory/views", { body: { name: name.value, address: props.address } })));
    name.value = "";
  }, "View saved");
}
const drop = (id: number) =>
  attempt(async () =>
    client.setQueryData(key, await data(api.DELETE("/api/v1/inventory/views/{id}", { params: { path: { id } } }))),
  );
</script>

<template>
  <v-menu :close-on-content-click="false">
    <template #activator="{ props: on }"><v-btn v-bind="on">Views</v-btn></template>
    <div class="menu">
      <p v-if="!views?.length" class="dim">No view saved yet. A view is what is shown, narrowed, grouped and sorted now.</p>
      <ul v-else>
        <li v-for="view in views" :key="view.id">
          <button class="open" @click="emit('open', view.address)">{{ view.name }}</button>
          <button class="link drop" :aria-label="`Delete the view ${view.name}`" @click="drop(view.id)">Delete</button>
        </li>
      </ul>
      <form @submit.prevent="save">
        <input v-model="name" maxlength="120" placeholder="Name of this view" aria-label="Name of this view" />
        <v-btn type="submit" class="go" :disabled="!name.trim()">Save</v-btn>
      </form>
    </div>
  </v-menu>
</template>

<style scoped>
.menu { background: var(--surface); border: 1px solid var(--rule); padding: 8px; width: 290px; }
ul { list-style: none; padding: 0; max-height: 260px; overflow: auto; }
li { display: flex; align-items: center; }
.open { flex: 1; text-align: left; background: none; border: 0; font: inherit; color: inherit; padding: 6px; cursor: pointer; border-radius: 3px; }
.open:hover { background: var(--rule2); }
.drop { font-size: 12px; padding: 0 6px; }
form { display: flex; gap: 6px; margin-top: 8px; }
input { flex: 1; min-width: 0; border: 1px solid var(--rule); border-radius: 4px; font: inherit; color: inherit; background: var(--paper); padding: 0 8px; }
p { padding: 4px; }
</style>
