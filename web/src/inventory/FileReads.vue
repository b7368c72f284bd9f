<script setup lang="ts">
import { useQueryClient } from "@tanstack/vue-query";
import { computed, ref, watch } from "vue";
import { RequestError, sendFile, type Problem, type Schemas } from "../api/client";
import JobLine from "../jobs/JobLine.vue";
import { done } from "../shared/notices";
import { isLead } from "../team/session";
import ProblemList from "./ProblemList.vue";

const emit = defineEmits<{ read: [id: number]; map: [file: Schemas["FileToMap"]] }>();
const client = useQueryClient();
const kinds = computed(() => [
  { id: "inventory", label: "Inventory", words: "servers, databases or applications, as CSV, XLSX or JSON; any columns. You accept the difference next." },
  { id: "counters", label: "Counters", words: "our CSV, OpenMetrics text, or what sadf -j and sadf -d write; of any size. You need not stay." },
  { id: "ties", label: "Ties", words: "from, to, kind, weight, evidence." },
  ...(isLead.value
    ? [
        { id: "windows", label: "Windows and freezes", words: "kind, wave, name, starts_at, ends_at, max_databases, max_gib." },
        { id: "catalogue", label: "Catalogue", words: "the destination's tiers and prices, as JSON." },
      ]
    : []),
]);
const kind = ref("inventory");
const ACCEPTED: Record<string, string> = { inventory: ".csv,.txt,.tsv,.xlsx,.json", counters: ".csv,.txt,.json,.prom", catalogue: ".json" };
const problem = ref<Problem>();
// kept until it is read, so that it need not be chosen again
const chosen = ref<File>();
const job = ref<number>();
watch(kind, () => (problem.value = undefined));
const busy = ref(false);

async function take(event: Event) {
  const input = event.target as HTMLInputElement;
  chosen.value = input.files?.[0];
  await attemptRead();
  input.value = "";
}
async function attemptRead(faulty = "REFUSED") {
  const file = chosen.value;
  if (!file) return;
  busy.value = true;
  problem.value = undefined;
  try {
    await send(file, faulty);
    chosen.value = undefined;
  } catch (error) {
    problem.value = error instanceof RequestError ? error.problem : { status: 0, detail: String(error) };
  } finally {
    busy.value = false;
  }
}
async function send(file: File, faulty: string) {
  switch (kind.value) {
    case "inventory": {
      const read = await sendFile<Schemas["ReadFile"]>("POST", "/api/v1/inventory/readings", file, { faulty });
      if (read.reading) emit("read", read.reading.id);
      else if (read.file) emit("map", read.file);
      return;
    }
    case "counters":
      job.value = (await sendFile<Schemas["Job"]>("POST", "/api/v1/counters/imports", file)).id;
      return;
    case "ties": {
      const read = await sendFile<Schemas["ReadTies"]>("POST", "/api/v1/dependencies/imports", file);
      done(`${read.changed} ties new or changed`);
      break;
    }
    case "windows": {
      const read = await sendFile<Schemas["ReadWindows"]>("POST", "/api/v1/waves/imports", file);
      done(`${read.taken} windows and freezes taken`);
      break;
    }
    default: {
      const read = await sendFile<Schemas["ReadCatalogue"]>("PUT", "/api/v1/sizing/catalogue", file);
      done(`${read.name}: ${read.tiers} tiers`);
    }
  }
  await client.invalidateQueries();
}
</script>

<template>
  <div class="form">
    <fieldset>
      <legend class="cap">What the file holds</legend>
      <label v-for="entry in kinds" :key="entry.id">
        <input v-model="kind" type="radio" name="kind" :value="entry.id" />
        <span><b>{{ entry.label }}</b> <span class="dim">{{ entry.words }}</span></span>
      </label>
    </fieldset>
    <label class="file">
      <span>{{ busy ? "Reading…" : "Choose the file" }}</span>
      <input type="file" aria-label="File to read" :accept="ACCEPTED[kind] ?? '.csv,.txt'" :disabled="busy" @change="take" />
    </label>
    <JobLine v-if="job" :id="job" />
    <ProblemList v-if="problem" :problem="problem" @leave-out="attemptRead('LEFT_OUT')" />
  </div>
</template>

<style scoped>
fieldset { border: 0; padding: 0; display: grid; gap: 6px; }
fieldset label { display: flex; gap: 8px; align-items: baseline; cursor: pointer; }
input[type="radio"] { accent-color: var(--current); }
.file { display: flex; gap: 12px; align-items: center; border: 1px dashed var(--rule); border-radius: 4px; padding: 14px; cursor: pointer; font-weight: 550; }
</style>
