<script setup lang="ts">
import { useQuery, useQueryClient } from "@tanstack/vue-query";
import { computed, ref } from "vue";
import { api, data, RequestError, sendFile, type Problem, type Schemas } from "../api/client";
import ProblemList from "../inventory/ProblemList.vue";
import JobLine from "../jobs/JobLine.vue";
import { exact, time } from "../shared/format";
import { attempt, done } from "../shared/notices";
import { useProgramme } from "../shared/queries";
import { isLead } from "../team/session";
import TokenTable from "../team/TokenTable.vue";
import { collectorList } from "./collectorList";
import { first, missing, standing } from "./states";

/** Bundles of collectors: carried here or pushed, and what waits in them. */
const emit = defineEmits<{ read: [id: number] }>();
const client = useQueryClient();
const { zone } = useProgramme();
const { data: bundles } = useQuery({ queryKey: ["bundles"], queryFn: () => data(api.GET("/api/v1/bundles")) });
const problem = ref<Problem>();
const job = ref<number>();
const busy = ref(false);
const all = ref(false);
const shown = computed(() => (all.value ? (bundles.value ?? []) : first(bundles.value ?? [])));
const list = computed(() => collectorList("", window.location.origin));

async function take(event: Event) {
  const input = event.target as HTMLInputElement;
  const file = input.files?.[0];
  if (!file) return;
  busy.value = true;
  problem.value = undefined;
  try {
    const got = await sendFile<Schemas["ReceivedBundle"]>("POST", "/api/v1/bundles", file);
    if (got.repeated) done(`This bundle of ${got.site} is here already; nothing was done again`);
    job.value = got.job?.id;
    await client.invalidateQueries({ queryKey: ["bundles"] });
  } catch (error) {
    problem.value = error instanceof RequestError ? error.problem : { status: 0, detail: String(error) };
  } finally {
    busy.value = false;
    input.value = "";
  }
}
const accept = (bundle: Schemas["Bundle"]) =>
  attempt(async () => {
    const got = await data(api.POST("/api/v1/bundles/{id}/accept", { params: { path: { id: bundle.id } } }));
    done(
      `${got.readings} accepted with ${got.changes} changes` +
        (got.doubtful ? `; ${got.doubtful} ${got.doubtful === 1 ? "waits" : "wait"} for a look, as something in it may be known under another name` : ""),
    );
    await client.invalidateQueries();
  });
const drop = (bundle: Schemas["Bundle"]) =>
  attempt(async () => {
    await data(api.DELETE("/api/v1/bundles/{id}", { params: { path: { id: bundle.id } } }));
    await client.invalidateQueries();
  }, "Dropped what waited; what was accepted stays");
const copy = () => attempt(() => navigator.clipboard.writeText(list.value), "List copied");
</script>

<template>
  <div class="form">
    <p class="dim">Where this server cannot reach, a collector runs beside the databases: it reads and samples what its list names, and its bundle is carried here or pushed.</p>
    <label class="file">
      <span>{{ busy ? "Checking every file in it…" : "Choose a bundle that was carried here" }}</span>
      <input type="file" aria-label="Bundle to read" accept=".zip" :disabled="busy" @change="take" />
    </label>
    <JobLine v-if="job" :id="job" :key="job" @done="client.invalidateQueries({ queryKey: ['bundles'] })" />
    <ProblemList v-if="problem" :problem="problem" />
    <article v-for="bundle in shown" :key="bundle.id" class="bundle">
      <header>
        <b>{{ bundle.site }}</b>
        <span class="dim">{{ time(bundle.from, zone) }} to {{ time(bundle.to, zone) }}</span>
        <span class="grow" />
        <span class="chip" :class="standing(bundle).tone">{{ standing(bundle).words }}</span>
      </header>
      <div class="dim">{{ bundle.servers.length }} {{ bundle.servers.length === 1 ? "server" : "servers" }}, {{ exact(bundle.samples) }} samples stored; received {{ time(bundle.receivedAt, zone) }} from {{ bundle.person }}</div>
      <ul v-if="missing(bundle).length" class="missing"><li v-for="line in missing(bundle)" :key="line">{{ line }}</li></ul>
      <div v-if="bundle.waiting.length" class="row">
        <button v-for="reading in bundle.waiting.slice(0, 8)" :key="reading.id" class="link" @click="emit('read', reading.id)">Look at {{ reading.source.replace("server ", "") }}</button>
        <span v-if="bundle.waiting.length > 8" class="dim">and {{ bundle.waiting.length - 8 }} more</span>
      </div>
      <div v-if="bundle.waiting.length || bundle.state === 'WAITING' || bundle.state === 'FAILED'" class="row end">
        <v-btn @click="drop(bundle)">Drop what waits</v-btn>
        <v-btn v-if="bundle.waiting.length" class="go" @click="accept(bundle)">Accept what is beyond doubt</v-btn>
      </div>
    </article>
    <button v-if="bundles && shown.length < bundles.length" class="link" @click="all = true">Show {{ bundles.length - shown.length }} more that are settled</button>
    <p v-if="bundles?.length === 0" class="dim none">No bundle has come yet.</p>
    <TokenTable v-if="isLead" />
    <details>
      <summary class="link">Start a collector</summary>
      <p class="dim">Carry <span class="mono">transitum-collect.jar</span> to a machine with Java 17 near the databases, save this as <span class="mono">list.yaml</span>, and run <span class="mono">java -jar transitum-collect.jar run list.yaml</span>. It can be stopped and started again at any time. Without <span class="mono">push</span> it leaves a bundle to carry.</p>
      <pre class="mono">{{ list }}</pre>
      <v-btn @click="copy">Copy the list</v-btn>
    </details>
  </div>
</template>

<style scoped>
.file { display: flex; gap: 12px; align-items: center; border: 1px dashed var(--rule); border-radius: 4px; padding: 14px; cursor: pointer; font-weight: 550; }
.bundle { border: 1px solid var(--rule); border-radius: 4px; padding: 10px 12px; display: grid; gap: 6px; }
.bundle header, .row { display: flex; gap: 8px; align-items: center; flex-wrap: wrap; }
.end { justify-content: flex-end; }
.missing { padding-left: 18px; color: var(--look); }
.missing li { overflow-wrap: anywhere; }
.form > .link { justify-self: start; }
.none { text-align: center; padding: 6px; }
summary { cursor: pointer; }
details > p { margin: 8px 0; }
pre { background: var(--paper); border: 1px solid var(--rule); border-radius: 4px; padding: 8px 10px; overflow: auto; margin-bottom: 8px; }
</style>
