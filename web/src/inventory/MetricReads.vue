<script setup lang="ts">
import { useQuery, useQueryClient } from "@tanstack/vue-query";
import { reactive, ref } from "vue";
import { api, data, type Schemas } from "../api/client";
import JobLine from "../jobs/JobLine.vue";
import { time } from "../shared/format";
import { attempt } from "../shared/notices";
import { useProgramme } from "../shared/queries";
import { targetLines, targetsOf } from "./targets";

defineProps<{ mayList: boolean }>();
const client = useQueryClient();
const { zone } = useProgramme();
const key = ["servers", "metrics"];
const { data: sources } = useQuery({ queryKey: key, queryFn: () => data(api.GET("/api/v1/counters/sources")) });
const job = ref<number>();
const days = ref(30);
const editing = ref(false);
const version = ref(0);
const entry = reactive({ name: "", url: "", user: "", password: "", stepSeconds: 300, targets: "", mapping: "" });

function edit(source?: Schemas["MetricSource"]) {
  Object.assign(entry, {
    name: source?.name ?? "",
    url: source?.url ?? "",
    user: source?.user ?? "",
    password: "",
    stepSeconds: source?.stepSeconds ?? 300,
    targets: targetLines(source?.targets ?? {}),
    mapping: source?.mapping ?? "",
  });
  version.value = source?.version ?? 0;
  editing.value = true;
}
const save = () =>
  attempt(async () => {
    client.setQueryData(
      key,
      await data(
        api.PUT("/api/v1/counters/sources", {
          params: { header: { "If-Match": `"${version.value}"` } },
          body: { ...entry, targets: targetsOf(entry.targets) },
        }),
      ),
    );
    editing.value = false;
  }, "Metrics server kept");
const read = (name: string) =>
  attempt(async () => {
    job.value = (
      await data(api.POST("/api/v1/counters/sources/{name}/read", { params: { path: { name }, query: { days: days.value } } }))
    ).id;
  });
const drop = (name: string) =>
  attempt(async () => {
    await data(api.DELETE("/api/v1/counters/sources/{name}", { params: { path: { name } } }));
    await client.invalidateQueries({ queryKey: key });
  }, "Removed; what was read stays");
const standard = () =>
  attempt(async () => {
    entry.mapping = (await data(api.GET("/api/v1/counters/sources/standard-mapping"))).mapping;
  });
</script>

<template>
  <div class="form">
    <p v-if="!sources?.length && !editing" class="dim">Any server that speaks the Prometheus HTTP API: what its exporters collected becomes counters here, without waiting weeks for new samples.</p>
    <table v-if="sources?.length" class="t-table">
      <thead><tr><th>Metrics server</th><th>Address</th><th>Read up to</th><th /></tr></thead>
      <tbody>
        <tr v-for="source in sources" :key="source.name">
          <td><b>{{ source.name }}</b></td>
          <td class="dim address">{{ source.url }}</td>
          <td class="dim">{{ source.readUntil ? time(source.readUntil, zone) : "not yet" }}</td>
          <td class="num">
            <template v-if="mayList"><button class="link" @click="edit(source)">Change</button> <button class="link" @click="drop(source.name)">Remove</button></template>
            <v-btn class="space" @click="read(source.name)">Read</v-btn>
          </td>
        </tr>
      </tbody>
    </table>
    <label v-if="sources?.length" class="dim">The last <input v-model.number="days" type="number" min="1" max="120" aria-label="Days to read" /> days are read.</label>
    <JobLine v-if="job" :id="job" :key="job" />
    <v-btn v-if="mayList && !editing" class="self" @click="edit()">List a metrics server</v-btn>
    <p v-if="!mayList && !sources?.length" class="dim">The lead lists the servers that may be connected to.</p>
    <form v-if="editing" class="form" @submit.prevent="save">
      <div class="two">
        <v-text-field v-model="entry.name" label="Name" :disabled="version > 0" />
        <v-text-field v-model="entry.url" label="Address, http://host:9090" />
        <v-text-field v-model="entry.user" label="User, where it asks for one" autocomplete="off" />
        <v-text-field v-model="entry.password" label="Password, kept encrypted" type="password" autocomplete="new-password" />
        <v-text-field v-model.number="entry.stepSeconds" label="Seconds between points" type="number" min="60" max="3600" />
      </div>
      <v-textarea v-model="entry.targets" class="mono" rows="3" label="Targets by hand, as target = key" />
      <p class="dim">A target is found by its host's name; one that is not, on a line of its own: 10.0.0.7:9187 = HEAD-PG-03</p>
      <details>
        <summary class="link">Which metrics become which counters</summary>
        <p class="dim">Empty for the common exporters of PostgreSQL, MySQL, MariaDB and hosts. <button type="button" class="link" @click="standard">Start from those</button></p>
        <v-textarea v-model="entry.mapping" class="mono" rows="8" label="Rules, as JSON" />
      </details>
      <div class="row"><v-btn @click="editing = false">Cancel</v-btn> <v-btn class="go" type="submit" :disabled="!entry.name.trim() || !entry.url.trim()">Keep this server</v-btn></div>
    </form>
  </div>
</template>

<style scoped>
.address { max-width: 200px; overflow: hidden; text-overflow: ellipsis; }
input[type="number"] { width: 60px; font: inherit; color: inherit; background: var(--paper); border: 1px solid var(--rule); border-radius: 4px; padding: 2px 6px; }
.self { justify-self: start; }
.space { margin-left: 10px; }
.row { display: flex; gap: 8px; justify-content: flex-end; }
summary { cursor: pointer; }
</style>
