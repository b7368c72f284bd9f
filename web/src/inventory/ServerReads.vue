<script setup lang="ts">
import { useQueryClient } from "@tanstack/vue-query";
import { computed, reactive, ref, watch } from "vue";
import { api, data, type Schemas } from "../api/client";
import JobLine from "../jobs/JobLine.vue";
import { time } from "../shared/format";
import { attempt } from "../shared/notices";
import { useProgramme } from "../shared/queries";

type Engine = Schemas["Server"]["engine"];
const ENGINES = [
  { title: "PostgreSQL, 12 or newer", value: "POSTGRESQL" },
  { title: "MariaDB or MySQL", value: "MARIADB" },
  { title: "Any other, as JSON over HTTP", value: "OTHER" },
];
const DEFAULTS = {
  POSTGRESQL: { port: 5432, database: "postgres", tls: "PREFER" },
  MARIADB: { port: 3306, database: "", tls: "PREFER" },
  OTHER: { port: 443, database: "", tls: "VERIFY" },
} as const;
const TLS = [
  { title: "TLS if offered", value: "PREFER" },
  { title: "TLS required", value: "REQUIRE" },
  { title: "TLS, certificate verified", value: "VERIFY" },
  { title: "No TLS", value: "DISABLE" },
];
const GRANTS = {
  POSTGRESQL: { words: "A role in pg_monitor that may connect to each database sees everything:", sql: ["create role transitum login password '…' in role pg_monitor;"] },
  MARIADB: {
    words: "An account with these rights sees everything; without SELECT only what views name stays unseen. On MySQL, and on MariaDB before 10.5, write replication client instead of replica monitor:",
    sql: [
      "create user transitum identified by '…';",
      "grant select, show databases, show view, trigger, event, process, replica monitor on *.* to transitum;",
    ],
  },
  OTHER: {
    words: "Its administrators let a script of theirs answer these two, as docs/formats/reading.md describes; SQL Server, Oracle, Db2 and anything else fit in:",
    sql: ["GET /path/reading", "GET /path/samples"],
  },
};
const props = defineProps<{ servers: Schemas["Server"][]; mayList: boolean }>();
const emit = defineEmits<{ read: [id: number] }>();
const client = useQueryClient();
const { zone } = useProgramme();
const jobs = ref<number[]>([]);
const adding = ref(false);
const every = ref(60);
const entry = reactive({ instance: "", engine: "POSTGRESQL" as Engine, host: "", port: 5432, database: "postgres", user: "", password: "", tls: "PREFER" as Schemas["Server"]["tls"] });
const tlsModes = computed(() => TLS.filter((mode) => entry.engine !== "OTHER" || mode.value === "VERIFY" || mode.value === "DISABLE"));
watch(() => entry.engine, (engine) => Object.assign(entry, DEFAULTS[engine]));

const start = async (instance: string) =>
  (await data(api.POST("/api/v1/inventory/servers/{instance}/read", { params: { path: { instance } } }))).id;
const read = (instance: string) =>
  attempt(async () => {
    jobs.value = [await start(instance)];
  });
/** All at once: each has its own line, so that a slow one holds up nobody. */
const readAll = () =>
  attempt(async () => {
    jobs.value = await Promise.all(props.servers.map((server) => start(server.instance)));
  });
/** A single reading leads to its difference at once; of many, a person chooses. */
function ended(job: Schemas["Job"]) {
  if (jobs.value.length === 1 && job.resultId != null) emit("read", job.resultId);
}
const list = () =>
  attempt(async () => {
    await data(api.PUT("/api/v1/inventory/servers", { body: { ...entry } }));
    await client.invalidateQueries({ queryKey: ["servers"] });
    adding.value = false;
    entry.password = "";
    await read(entry.instance);
  });
const sample = (instance: string, seconds: number | undefined) =>
  attempt(async () => {
    await data(
      api.PUT("/api/v1/inventory/servers/{instance}/sampling", {
        params: { path: { instance } },
        body: { seconds },
      }),
    );
    await client.invalidateQueries({ queryKey: ["servers"] });
  });
</script>

<template>
  <div class="form">
    <table v-if="servers.length" class="t-table">
      <thead><tr><th>Server</th><th>Address</th><th>Sampling</th><th /></tr></thead>
      <tbody>
        <tr v-for="server in servers" :key="server.instance">
          <td><b>{{ server.instance }}</b></td>
          <td class="dim">{{ server.host }}:{{ server.port }} as {{ server.user }}</td>
          <td>
            <template v-if="server.samplingSeconds">
              every {{ server.samplingSeconds }} s
              <span v-if="server.samplingProblem" class="act" :title="server.samplingProblem">failing</span>
              <span v-else-if="server.sampledAt" class="dim">last {{ time(server.sampledAt, zone, false) }}</span>
            </template>
            <span v-else class="dim">off</span>
          </td>
          <td class="num">
            <v-btn v-if="mayList && !server.samplingSeconds" class="space" @click="sample(server.instance, every)">Sample</v-btn>
            <v-btn v-if="mayList && server.samplingSeconds" class="space" @click="sample(server.instance, undefined)">Stop</v-btn>
            <v-btn @click="read(server.instance)">Read</v-btn>
          </td>
        </tr>
      </tbody>
    </table>
    <p v-else-if="!mayList" class="dim">No server is listed yet. The lead lists the servers that may be connected to.</p>
    <div v-if="mayList && servers.length" class="every dim">
      New sampling takes a sample every <input v-model.number="every" type="number" min="10" max="3600" aria-label="Seconds between samples" /> s.
    </div>
    <div v-if="servers.length && !adding" class="row">
      <v-btn v-if="servers.length > 1" @click="readAll">Read all {{ servers.length }}</v-btn>
      <v-btn v-if="mayList" @click="adding = true">List another server</v-btn>
    </div>
    <JobLine v-for="one in jobs" :id="one" :key="one" @done="ended">
      <template #default="{ job }">
        <v-btn v-if="jobs.length > 1 && job.resultId != null" @click="emit('read', job.resultId)">Look</v-btn>
      </template>
    </JobLine>
    <form v-if="mayList && (adding || !servers.length)" class="form" @submit.prevent="list">
      <p class="dim">
        Reading writes nothing on the server. {{ GRANTS[entry.engine].words }}
        <span v-for="sql in GRANTS[entry.engine].sql" :key="sql" class="mono grant">{{ sql }}</span>
      </p>
      <v-select v-model="entry.engine" :items="ENGINES" label="Engine" />
      <div class="two">
        <v-text-field v-model="entry.instance" label="Name in the inventory" placeholder="HEAD-PG-01" />
        <v-select v-model="entry.tls" :items="tlsModes" label="TLS" />
        <v-text-field v-model="entry.host" label="Host" />
        <v-text-field v-model.number="entry.port" label="Port" type="number" />
        <v-text-field v-if="entry.engine !== 'MARIADB'" v-model="entry.database" :label="entry.engine === 'OTHER' ? 'Path, empty where there is none' : 'Database to connect to first'" />
        <v-text-field v-model="entry.user" label="User" autocomplete="off" />
        <v-text-field v-model="entry.password" label="Password, kept encrypted" type="password" autocomplete="new-password" />
      </div>
      <v-btn class="go self" type="submit">List and read it</v-btn>
    </form>
  </div>
</template>

<style scoped>
.self { justify-self: start; }
.row { display: flex; gap: 8px; }
.space { margin-right: 6px; }
.every input { width: 64px; border: 1px solid var(--rule); border-radius: 3px; padding: 2px 6px; background: var(--paper); color: var(--ink); }
.grant { display: block; overflow-wrap: anywhere; }
</style>
