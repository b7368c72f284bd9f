<script setup lang="ts">
import { computed, reactive, ref } from "vue";
import { api, data, RequestError, type Problem, type Schemas } from "../api/client";
import { noun } from "./columns";
import ProblemList from "./ProblemList.vue";

/** Says what the columns of somebody's spreadsheet mean, before it is read. */
const props = defineProps<{ file: Schemas["FileToMap"] }>();
const emit = defineEmits<{ close: []; read: [id: number] }>();
const sheets = reactive(
  props.file.sheets.map((sheet) => ({
    ...sheet,
    taken: sheet.readable || props.file.sheets.length === 1,
    columns: sheet.columns.map((column) => ({ ...column })),
  })),
);
const at = ref(Math.max(0, sheets.findIndex((sheet) => sheet.taken)));
const sheet = computed(() => sheets[at.value]);
const problem = ref<Problem>();
const busy = ref(false);
const KINDS = [undefined, "DATABASE", "INSTANCE", "HOST", "APPLICATION"] as const;
const meanings = KINDS.map((kind) => ({
  title: kind ? `Of the ${noun(kind, 1)}` : "Which one it is about",
  of: props.file.meanings.filter((meaning) => (meaning.of ?? undefined) === kind),
})).filter((group) => group.of.length);
const UNITS = ["", "KB", "MB", "GB", "TB", "min", "h", "days"];
const hasUnit = (target: string) => /_(bytes|minutes)$/.test(target);
const sure = { KNOWN: "named so", LIKELY: "likely", CONTENT: "by its content", NONE: "" } as const;
const doubled = computed(() => {
  const names = sheet.value.columns.map((column) => column.target).filter(Boolean);
  return names.filter((name, i) => names.indexOf(name) !== i);
});
const taken = computed(() => sheets.filter((one) => one.taken));

async function read(faulty: Schemas["Mapping"]["faulty"] = "REFUSED") {
  busy.value = true;
  problem.value = undefined;
  try {
    const reading = await data(
      api.POST("/api/v1/inventory/files/{id}/readings", {
        params: { path: { id: props.file.id } },
        body: {
          faulty,
          sheets: taken.value.map((one) => ({
            sheet: one.sheet,
            headerRow: one.headerRow,
            columns: one.columns.map(({ header, target, unit }) => ({ header, target, unit: hasUnit(target) ? unit : "" })),
          })),
        },
      }),
    );
    emit("read", reading.id);
  } catch (error) {
    problem.value = error instanceof RequestError ? error.problem : { status: 0, detail: String(error) };
  } finally {
    busy.value = false;
  }
}
</script>

<template>
  <v-dialog :model-value="true" max-width="860" persistent @update:model-value="emit('close')">
    <div class="sheet" role="dialog" aria-label="What the columns mean">
      <header>
        <h2>{{ file.name }}: what do its columns mean?</h2>
        <p class="dim">Your answer is remembered for the next file with these columns.</p>
        <div v-if="sheets.length > 1" class="sheets" role="tablist">
          <span v-for="(one, i) in sheets" :key="one.sheet" class="one">
            <input v-model="one.taken" type="checkbox" :aria-label="`Read sheet ${one.sheet}`" />
            <button role="tab" :aria-selected="i === at" @click="at = i">{{ one.sheet }} <span class="dim">{{ one.rows }} rows</span></button>
          </span>
        </div>
      </header>
      <div class="body">
        <p v-for="note in sheet.notes" :key="note" class="note">{{ note }}</p>
        <table class="t-table">
          <thead><tr><th>Column</th><th>Means</th><th>Bare numbers are in</th><th>Its first values</th></tr></thead>
          <tbody>
            <tr v-for="column in sheet.columns" :key="column.header">
              <td><b>{{ column.header || "no name" }}</b></td>
              <td>
                <select v-model="column.target" :aria-label="`Meaning of ${column.header}`" :class="{ unknown: !column.target }">
                  <option value="">leave out</option>
                  <optgroup v-for="group in meanings" :key="group.title" :label="group.title">
                    <option v-for="meaning in group.of" :key="meaning.target" :value="meaning.target">{{ meaning.label }}</option>
                  </optgroup>
                </select>
                <span class="dim ground" :title="column.why">{{ column.target ? sure[column.certainty] : "" }}</span>
              </td>
              <td>
                <select v-if="hasUnit(column.target)" v-model="column.unit" :aria-label="`Unit of ${column.header}`">
                  <option v-for="unit in new Set([...UNITS, column.unit])" :key="unit" :value="unit">{{ unit || (column.target.endsWith("bytes") ? "bytes" : "minutes") }}</option>
                </select>
              </td>
              <td class="dim sample">{{ column.sample.join(" · ") || "empty" }}</td>
            </tr>
          </tbody>
        </table>
        <p v-if="doubled.length" class="problem" role="alert">Two columns cannot both mean {{ doubled.join(", ") }}.</p>
        <ProblemList v-if="problem" :problem="problem" @leave-out="read('LEFT_OUT')" />
      </div>
      <footer>
        <span class="dim grow">A row needs its instance with the database or the host, or an application.</span>
        <v-btn @click="emit('close')">Cancel</v-btn>
        <v-btn class="go" :loading="busy" :disabled="!taken.length || !!doubled.length" @click="read()">Compare with the inventory</v-btn>
      </footer>
    </div>
  </v-dialog>
</template>

<style scoped>
.sheets { display: flex; gap: 14px; border-bottom: 1px solid var(--rule); margin-top: 8px; overflow-x: auto; }
.one { display: inline-flex; gap: 6px; align-items: center; white-space: nowrap; }
.one button { background: none; border: 0; font: inherit; color: var(--ink2); padding: 4px 0 6px; cursor: pointer; }
.one button[aria-selected="true"] { color: var(--current); font-weight: 650; box-shadow: inset 0 -2px var(--current); }
input { accent-color: var(--current); }
select { font: inherit; color: inherit; background: var(--surface); border: 1px solid var(--rule); border-radius: 4px; height: 26px; padding: 0 6px; min-width: 90px; }
.ground { margin-left: 6px; font-size: 11.5px; }
.sample { max-width: 260px; overflow: hidden; text-overflow: ellipsis; }
.note { background: var(--look-soft); color: var(--look); border-radius: 4px; padding: 6px 10px; margin-bottom: 6px; }
</style>
