<script setup lang="ts">
import { mdiClose } from "@mdi/js";
import { computed } from "vue";
import CrossingTab from "../crossings/CrossingTab.vue";
import TiesTab from "../dependencies/TiesTab.vue";
import { instanceWords } from "../inventory/estate";
import FactsTab from "../inventory/FactsTab.vue";
import MembersTab from "../inventory/MembersTab.vue";
import JournalTab from "../journal/JournalTab.vue";
import { words } from "../shared/format";
import { useDependencies, useEstate, usePlaces } from "../shared/queries";
import DemandTab from "../sizing/DemandTab.vue";
import StatusMark from "./StatusMark.vue";
import { useDossier } from "./useDossier";

const props = defineProps<{ subject: string }>();
const dossier = useDossier();
const { data: table } = useEstate(dossier.kind);
const { byKey } = usePlaces();
const { data: dependencies } = useDependencies();
const database = computed(() => dossier.kind.value === "DATABASE");
const row = computed(() => table.value?.row(props.subject));
const place = computed(() => (database.value ? byKey.value.get(props.subject) : undefined));
const ties = computed(
  () => dependencies.value?.ties.filter((tie) => tie.from === props.subject || tie.to === props.subject) ?? [],
);
const tabs = computed(() =>
  database.value
    ? [
        { name: "facts", label: "Facts" },
        { name: "demand", label: "Demand" },
        { name: "ties", label: `Ties ${ties.value.length || ""}` },
        { name: "crossing", label: "Crossing" },
        { name: "journal", label: "Journal" },
      ]
    : [
        { name: "facts", label: "Facts" },
        { name: "members", label: `Databases ${row.value?.number("databases") ?? ""}` },
        { name: "journal", label: "Journal" },
      ],
);
const tab = computed(() => tabs.value.find((one) => one.name === dossier.tab.value)?.name ?? "facts");
const line = computed(() => {
  if (!row.value) return "";
  const owner = row.value.text("owner");
  if (dossier.kind.value === "INSTANCE") return `instance, ${instanceWords(row.value)}`;
  if (!database.value) return `${dossier.kind.value.toLowerCase()}${owner ? `, owner ${owner}` : ""}`;
  const stage = place.value?.place === "CROSSING" ? `, ${words(place.value.stage)}` : "";
  return `${words(place.value?.place)}${stage}, ${owner ? `owner ${owner}` : "nobody owns it yet"}`;
});
</script>

<template>
  <aside class="dossier" :aria-label="`Dossier of ${subject}`">
    <header>
      <StatusMark v-if="place" :state="place" />
      <h2 :title="subject">{{ subject }}</h2>
      <span class="dim">{{ place?.wave ?? "" }}</span>
      <button class="close" aria-label="Close the dossier" @click="dossier.close()">
        <svg width="18" height="18" viewBox="0 0 24 24"><path :d="mdiClose" fill="currentColor" /></svg>
      </button>
    </header>
    <p v-if="row" class="dim line">{{ line }}</p>
    <div class="tabs" role="tablist">
      <button v-for="one in tabs" :key="one.name" role="tab" :aria-selected="tab === one.name" @click="dossier.show(one.name)">
        {{ one.label }}
      </button>
    </div>
    <div class="body scroll" role="tabpanel" tabindex="0">
      <div v-if="table && !row" class="empty">
        <h2>Not in the inventory</h2>
        <p>No {{ dossier.kind.value.toLowerCase() }} is called {{ subject }}. It may be gone since this address was sent.</p>
      </div>
      <FactsTab v-else-if="tab === 'facts'" :subject="subject" :kind="dossier.kind.value" />
      <MembersTab v-else-if="tab === 'members'" :subject="subject" :kind="dossier.kind.value" />
      <DemandTab v-else-if="tab === 'demand'" :subject="subject" />
      <TiesTab v-else-if="tab === 'ties'" :subject="subject" />
      <CrossingTab v-else-if="tab === 'crossing'" :subject="subject" />
      <JournalTab v-else :subject="subject" :kind="dossier.kind.value" />
    </div>
  </aside>
</template>

<style scoped>
.dossier { border-left: 1px solid var(--rule); background: var(--surface); min-width: 0; display: flex; flex-direction: column; overflow: hidden; }
header { display: flex; align-items: center; gap: 8px; padding: 12px 10px 0 16px; }
h2 { font-size: 15px; font-weight: 650; flex: 1; overflow: hidden; text-overflow: ellipsis; white-space: nowrap; }
.close { background: none; border: 0; color: var(--ink2); cursor: pointer; display: grid; padding: 3px; }
.line { padding: 3px 16px 8px; }
.tabs { display: flex; gap: 14px; border-bottom: 1px solid var(--rule); padding: 0 16px; }
.tabs button { background: none; border: 0; font: inherit; color: var(--ink2); padding: 0 0 6px; cursor: pointer; white-space: nowrap; }
.tabs button[aria-selected="true"] { color: var(--current); font-weight: 650; box-shadow: inset 0 -2px var(--current); }
.body { flex: 1; padding: 4px 16px 16px; }
</style>
