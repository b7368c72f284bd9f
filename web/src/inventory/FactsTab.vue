<script setup lang="ts">
import { useQuery, useQueryClient } from "@tanstack/vue-query";
import { computed, ref } from "vue";
import { api, data, type Schemas } from "../api/client";
import { time } from "../shared/format";
import { useProgramme } from "../shared/queries";
import { mayWork } from "../team/session";
import FactEditor from "./FactEditor.vue";
import { factSource, factValue } from "./facts";

type AttributeFacts = Schemas["AttributeFacts"];
const props = defineProps<{ subject: string }>();
const { zone } = useProgramme();
const client = useQueryClient();
const key = computed(() => ["inventory", "object", props.subject]);
const { data: facts, isError } = useQuery({
  queryKey: key,
  queryFn: () =>
    data(api.GET("/api/v1/inventory/object", { params: { query: { kind: "DATABASE", key: props.subject } } })),
});
const edited = ref<AttributeFacts>();
const all = ref(false);
const shown = computed(() => (facts.value?.attributes ?? []).filter((fact) => all.value || fact.counts));
const hidden = computed(() => (facts.value?.attributes.length ?? 0) - shown.value.length);
</script>

<template>
  <p v-if="isError" class="empty">The facts could not be read. They come back with the connection.</p>
  <dl class="facts">
    <div v-for="fact in shown" :key="fact.attribute" class="fact">
      <dt class="dim">{{ fact.label }}</dt>
      <dd>
        <b v-if="fact.counts">{{ factValue(fact.type, fact.counts.value) }}</b>
        <span v-else class="unknown" title="No source has told it yet">—</span>
        <button v-if="mayWork" class="link edit" :aria-label="`State ${fact.label}`" @click="edited = fact">
          {{ fact.counts ? "Change" : "State" }}
        </button>
        <span v-if="fact.counts" class="source">
          {{ factSource(fact.counts, fact.inheritedFrom) }}, {{ time(fact.counts.at, zone) }}
        </span>
        <span v-for="other in fact.others.slice(0, 3)" :key="other.id" class="source other">
          {{ factValue(fact.type, other.value) }}: {{ factSource(other) }}, {{ time(other.at, zone) }}
        </span>
      </dd>
    </div>
  </dl>
  <button v-if="hidden > 0" class="link more" @click="all = true">Show {{ hidden }} unknown</button>
  <FactEditor
    v-if="edited"
    :subject="subject"
    :fact="edited"
    @close="edited = undefined"
    @stored="(now) => client.setQueryData(key, now)"
  />
</template>

<style scoped>
.fact { display: grid; grid-template-columns: 96px 1fr; column-gap: 6px; border-bottom: 1px solid var(--rule2); padding: 5px 0; }
dd { position: relative; min-width: 0; overflow-wrap: anywhere; }
b { font-weight: 600; }
.source { display: block; font-size: 11.5px; color: var(--ink2); font-stretch: 92%; }
.other { color: var(--ink3); }
.edit { position: absolute; right: 0; top: 0; opacity: 0; background: var(--surface); padding-left: 6px; }
.fact:hover .edit, .edit:focus-visible { opacity: 1; }
.more { margin-top: 10px; }
</style>
