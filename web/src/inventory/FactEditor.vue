<script setup lang="ts">
import { ref } from "vue";
import { api, data, RequestError, type Problem, type Schemas } from "../api/client";
import { done } from "../shared/notices";
import type { ObjectKind } from "./estate";

const props = defineProps<{ subject: string; kind: ObjectKind; fact: Schemas["AttributeFacts"] }>();
const emit = defineEmits<{ close: []; stored: [facts: Schemas["ObjectFacts"]] }>();
const value = ref(props.fact.counts?.value ?? "");
const observed = props.fact.counts?.origin === "OBSERVED";
const pinned = ref(props.fact.counts?.pinned ?? observed);
const stated = !props.fact.inheritedFrom && props.fact.counts?.origin === "STATED";
const reason = ref(props.fact.counts?.reason ?? "");
const problem = ref<Problem>();
const busy = ref(false);
let version = props.fact.counts && !props.fact.inheritedFrom ? props.fact.counts.id : 0;

const params = () => ({ header: { "If-Match": `"${version}"` } });
const store = () =>
  send("stored", () =>
    data(
      api.PUT("/api/v1/inventory/object/fact", {
        params: params(),
        body: {
          kind: props.kind,
          key: props.subject,
          attribute: props.fact.attribute,
          value: value.value,
          pinned: pinned.value,
          reason: reason.value || undefined,
        },
      }),
    ),
  );
const withdraw = () =>
  send("withdrawn", () =>
    data(
      api.DELETE("/api/v1/inventory/object/fact", {
        params: { ...params(), query: { kind: props.kind, key: props.subject, attribute: props.fact.attribute } },
      }),
    ),
  );

async function send(what: string, request: () => Promise<Schemas["ObjectFacts"]>) {
  busy.value = true;
  try {
    emit("stored", await request());
    done(`${props.fact.label} ${what}`);
    emit("close");
  } catch (error) {
    problem.value = error instanceof RequestError ? error.problem : { status: 0, detail: String(error) };
    if (problem.value.status === 412) version = problem.value.version ?? version;
  } finally {
    busy.value = false;
  }
}
</script>

<template>
  <v-dialog :model-value="true" max-width="440" @update:model-value="emit('close')">
    <form class="sheet" role="dialog" :aria-label="`State ${fact.label}`" @submit.prevent="store">
      <header><h2>{{ subject }}: {{ fact.label }}</h2></header>
      <div class="body form">
        <v-select v-if="fact.choices.length" v-model="value" :items="fact.choices" :label="fact.label" />
        <v-text-field
          v-else
          v-model="value"
          :label="fact.type === 'BYTES' ? `${fact.label}, such as 1.5 TB` : fact.type === 'MINUTES' ? `${fact.label}, such as 4 h` : fact.label"
          autofocus
        />
        <p v-if="observed" class="dim">It was observed on the server. Another value counts only while it is pinned; else it is kept beside.</p>
        <v-checkbox v-model="pinned" label="Pin it, so that no later reading replaces it" />
        <v-text-field v-if="pinned" v-model="reason" label="Reason for the pin" />
        <div v-if="problem" class="problem" role="alert">
          {{ problem.detail }}
          <p v-if="problem.status === 412">Theirs: <b>{{ problem.theirs || "none" }}</b>. Yours: <b>{{ problem.yours }}</b>.</p>
        </div>
      </div>
      <footer>
        <v-btn v-if="stated" class="back" title="What sources tell counts again" @click="withdraw">Withdraw what was stated</v-btn>
        <v-btn @click="emit('close')">{{ problem?.status === 412 ? "Keep theirs" : "Cancel" }}</v-btn>
        <v-btn class="go" type="submit" :loading="busy">{{ problem?.status === 412 ? "Store mine" : "Store" }}</v-btn>
      </footer>
    </form>
  </v-dialog>
</template>

<style scoped>
.back { margin-right: auto; }
</style>
