<script setup lang="ts">
import { useQuery, useQueryClient } from "@tanstack/vue-query";
import { computed, ref } from "vue";
import { api, data, type Schemas } from "../api/client";
import { time } from "../shared/format";
import { useProgramme } from "../shared/queries";
import { mayWork } from "../team/session";
import type { ObjectKind } from "./estate";
import FactEditor from "./FactEditor.vue";
import { factSource, factValue, whyItCounts } from "./facts";

type AttributeFacts = Schemas["AttributeFacts"];
const props = defineProps<{ subject: string; kind: ObjectKind }>();
const { zone } = useProgramme();
const client = useQueryClient();
const key = computed(() => ["inventory", "object", props.kind, props.subject]);
const { data: facts, isError } = useQuery({
  queryKey: key,
  queryFn: () =>
    data(api.GET("/api/v1/inventory/object", { params: { query: { kind: props.kind, key: props.subject } } })),
});
const edited = ref<AttributeFacts>();
const all = ref(false);
const opened = ref("");
const shown = computed(() => (facts.value?.attributes ?? []).filter((fact) => all.value || fact.counts));
const hidden = computed(() => (facts.value?.attributes.length ?? 0) - shown.value.length);
const competing = (fact: AttributeFacts) => fact.others.filter((other) => other.latest && other.value !== fact.counts?.value);
const earlier = (fact: AttributeFacts) => fact.others.length - competing(fact).length;
</script>

<template>
  <p v-if="isError" class="empty">The facts could not be read. They come back with the connection.</p>
  <dl class="facts">
    <div v-for="fact in shown" :key="fact.attribute" class="fact">
      <dt class="dim">{{ fact.label }}</dt>
      <dd>
        <b v-if="fact.counts">{{ factValue(fact.type, fact.counts.value) }}</b>
        <span v-else class="unknown" title="No source has told it yet">—</span>
        <span v-if="fact.contradicted" class="chip warn" :title="whyItCounts(fact)">sources disagree</span>
        <button v-if="mayWork" class="link edit" :aria-label="`State ${fact.label}`" @click="edited = fact">
          {{ fact.counts ? "Change" : "State" }}
        </button>
        <span v-if="fact.counts" class="source" :title="whyItCounts(fact)">
          {{ factSource(fact.counts, fact.inheritedFrom) }}, {{ time(fact.counts.at, zone)
          }}<template v-if="fact.counts.seenAt !== fact.counts.at">, seen again {{ time(fact.counts.seenAt, zone) }}</template>
        </span>
        <span v-for="other in competing(fact)" :key="other.id" class="source other">
          <b>{{ factValue(fact.type, other.value) }}</b> {{ factSource(other) }}, {{ time(other.at, zone) }}
        </span>
        <button v-if="earlier(fact) && opened !== fact.attribute" class="link source" @click="opened = fact.attribute">{{ earlier(fact) }} earlier or agreeing</button>
        <template v-if="opened === fact.attribute">
          <span v-for="other in fact.others.filter((one) => !competing(fact).includes(one))" :key="other.id" class="source other">
            {{ factValue(fact.type, other.value) }}: {{ factSource(other) }}, {{ time(other.at, zone) }}
          </span>
        </template>
      </dd>
    </div>
  </dl>
  <button v-if="hidden > 0" class="link more" @click="all = true">Show {{ hidden }} unknown</button>
  <p class="dim rule">What counts: a pinned value; else what was observed on a server; else the latest that people or files told.</p>
  <FactEditor
    v-if="edited"
    :subject="subject"
    :kind="kind"
    :fact="edited"
    @close="edited = undefined"
    @stored="(now) => client.setQueryData(key, now)"
  />
</template>

<style scoped>
.fact { display: grid; grid-template-columns: 96px 1fr; column-gap: 6px; border-bottom: 1px solid var(--rule2); padding: 5px 0; }
dd { position: relative; min-width: 0; overflow-wrap: anywhere; }
b { font-weight: 600; }
.chip { margin-left: 6px; height: 18px; font-size: 11px; }
.source { display: block; font-size: 11.5px; color: var(--ink2); font-stretch: 92%; font-weight: 400; }
button.source { color: var(--current); }
.other { color: var(--ink2); padding-left: 8px; border-left: 2px solid var(--rule); margin-top: 2px; }
.edit { position: absolute; right: 0; top: 0; opacity: 0; background: var(--surface); padding-left: 6px; }
.fact:hover .edit, .edit:focus-visible { opacity: 1; }
.more { margin-top: 10px; }
.rule { font-size: 11.5px; margin-top: 12px; }
</style>
