<script setup lang="ts">
import { ref } from "vue";
import { api, data, RequestError, type Problem, type Schemas } from "../api/client";
import { done } from "../shared/notices";

const props = defineProps<{ subject: string; fact: Schemas["AttributeFacts"] }>();
const emit = defineEmits<{ close: []; stored: [facts: Schemas["ObjectFacts"]] }>();
const value = ref(props.fact.counts?.value ?? "");
const pinned = ref(props.fact.counts?.pinned ?? false);
const reason = ref(props.fact.counts?.reason ?? "");
const problem = ref<Problem>();
const busy = ref(false);
let version = props.fact.counts && !props.fact.inheritedFrom ? props.fact.counts.id : 0;

async function store() {
  busy.value = true;
  try {
    const facts = await data(
      api.PUT("/api/v1/inventory/object/fact", {
        params: { header: { "If-Match": `"${version}"` } },
        body: {
          kind: "DATABASE",
          key: props.subject,
          attribute: props.fact.attribute,
          value: value.value,
          pinned: pinned.value,
          reason: reason.value || undefined,
        },
      }),
    );
    emit("stored", facts);
    done(`${props.fact.label} stored`);
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
          :label="fact.type === 'BYTES' ? `${fact.label}, bytes` : fact.type === 'MINUTES' ? `${fact.label}, minutes` : fact.label"
          autofocus
        />
        <v-checkbox v-model="pinned" label="Pin it, so that no later reading replaces it" />
        <v-text-field v-if="pinned" v-model="reason" label="Reason for the pin" />
        <div v-if="problem" class="problem" role="alert">
          {{ problem.detail }}
          <p v-if="problem.status === 412">Theirs: <b>{{ problem.theirs || "none" }}</b>. Yours: <b>{{ problem.yours }}</b>.</p>
        </div>
      </div>
      <footer>
        <v-btn @click="emit('close')">{{ problem?.status === 412 ? "Keep theirs" : "Cancel" }}</v-btn>
        <v-btn class="go" type="submit" :loading="busy">{{ problem?.status === 412 ? "Store mine" : "Store" }}</v-btn>
      </footer>
    </form>
  </v-dialog>
</template>
