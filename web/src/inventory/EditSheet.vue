<script setup lang="ts">
import { useQueryClient } from "@tanstack/vue-query";
import { computed, ref, watch } from "vue";
import { api, data, RequestError, type Schemas } from "../api/client";
import { done } from "../shared/notices";
import type { EstateTable } from "./estate";
import { factValue } from "./facts";
import { pasted, type PastedEdit } from "./pasted";

/** Sets one fact of many objects, or takes a table pasted from a spreadsheet; shows first what would change. */
const props = defineProps<{ table: EstateTable; keys: string[]; attribute?: string; text?: string }>();
const emit = defineEmits<{ close: [] }>();
const client = useQueryClient();
const own = computed(() => props.table.columns.filter((column) => column.of === props.table.kind && !["databases", "total_size_bytes"].includes(column.name)));
const pasting = props.text != null;
const attribute = ref(props.attribute ?? own.value[0]?.name ?? "");
const value = ref("");
const text = ref(props.text ?? "");
const pinned = ref(false);
const reason = ref("");
const problem = ref("");
const busy = ref(false);
const results = ref<Schemas["EditResult"][]>();
const column = computed(() => props.table.column(attribute.value));
const read = computed(() => (pasting ? pasted(text.value, props.table.kind, own.value.map((one) => one.name)) : undefined));
const edits = computed<PastedEdit[]>(
  () => read.value?.edits ?? props.keys.map((key) => ({ key, attribute: attribute.value, value: value.value })),
);
const LISTED = 200;
const changes = computed(() => (results.value ?? []).filter((one) => one.problem || one.before !== one.after || pinned.value));
const bad = computed(() => (results.value ?? []).filter((one) => one.problem).length);
const good = computed(() => changes.value.length - bad.value);
watch([attribute, value, text, pinned], () => (results.value = undefined));
const shown = (name: string, cell?: string) => (cell == null ? "unknown" : factValue(props.table.column(name)?.type ?? "TEXT", cell));
const label = (name: string) => props.table.column(name)?.label ?? name;

async function send(dryRun: boolean) {
  busy.value = true;
  problem.value = "";
  try {
    const answer = await data(
      api.POST("/api/v1/inventory/edits", {
        body: { kind: props.table.kind, edits: edits.value, pinned: pinned.value, reason: reason.value || undefined, dryRun },
      }),
    );
    if (dryRun) {
      results.value = answer;
      return;
    }
    done(`${good.value} ${good.value === 1 ? "value" : "values"} stored`);
    await client.invalidateQueries({ queryKey: ["inventory"] });
    emit("close");
  } catch (error) {
    problem.value = error instanceof RequestError ? error.message : String(error);
  } finally {
    busy.value = false;
  }
}
</script>

<template>
  <v-dialog :model-value="true" max-width="720" @update:model-value="emit('close')">
    <form class="sheet" role="dialog" :aria-label="pasting ? 'Paste a table' : 'Set a value'" @submit.prevent="send(!results)">
      <header>
        <h2>{{ pasting ? "Paste a table" : `Set a value of ${keys.length} ${keys.length === 1 ? "object" : "objects"}` }}</h2>
        <p v-if="pasting" class="dim">One row for each, as <i>Copy as table</i> gives it: change cells in a spreadsheet and paste it back. Nothing is stored before you have seen what would change.</p>
      </header>
      <div class="body form">
        <v-textarea v-if="pasting" v-model="text" label="The table, with its header row" rows="5" class="mono" autofocus />
        <div v-else class="two">
          <v-select v-model="attribute" :items="own.map((one) => ({ title: one.label, value: one.name }))" label="What" />
          <v-select v-if="column?.choices.length" v-model="value" :items="column.choices" :label="column.label" />
          <v-text-field v-else v-model="value" :label="column?.type === 'BYTES' ? 'Value, such as 1.5 TB' : column?.type === 'MINUTES' ? 'Value, such as 4 h' : 'Value'" autofocus />
        </div>
        <v-checkbox v-model="pinned" label="Pin, so that no later reading replaces it" />
        <v-text-field v-if="pinned" v-model="reason" label="Reason for the pin" />
        <p v-if="read?.problem && text" class="problem" role="alert">{{ read.problem }}</p>
        <p v-if="problem" class="problem" role="alert">{{ problem }}</p>
        <template v-if="results">
          <p v-if="!changes.length" class="dim">Nothing would change.</p>
          <table v-else class="t-table">
            <thead><tr><th>Object</th><th>Fact</th><th>Now</th><th>Then</th></tr></thead>
            <tbody>
              <tr v-for="one in changes.slice(0, LISTED)" :key="one.key + one.attribute">
                <td><b>{{ one.key }}</b></td>
                <td class="dim">{{ label(one.attribute) }}</td>
                <td class="dim">{{ shown(one.attribute, one.before) }}</td>
                <td v-if="one.problem" class="act">{{ one.problem }}</td>
                <td v-else><b>{{ shown(one.attribute, one.after) }}</b> <span v-if="one.kept" class="chip warn">kept beside, the server's counts</span></td>
              </tr>
            </tbody>
          </table>
          <p v-if="changes.length > LISTED" class="dim">and {{ changes.length - LISTED }} more</p>
        </template>
      </div>
      <footer>
        <span v-if="bad" class="act">{{ bad }} cannot be taken; mend or remove them</span>
        <span class="grow" />
        <v-btn @click="emit('close')">Cancel</v-btn>
        <v-btn v-if="!results" class="go" type="submit" :loading="busy" :disabled="!edits.length || (!pasting && !value)">See what would change</v-btn>
        <v-btn v-else class="go" type="submit" :loading="busy" :disabled="!good || !!bad || (pinned && !reason.trim())">Store {{ good }} {{ good === 1 ? "value" : "values" }}</v-btn>
      </footer>
    </form>
  </v-dialog>
</template>

<style scoped>
td { max-width: 240px; overflow: hidden; text-overflow: ellipsis; white-space: normal; }
</style>
