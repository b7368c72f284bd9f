<script setup lang="ts">
import DossierPanel from "./DossierPanel.vue";
import KeyHelp from "./KeyHelp.vue";
import RouteRail from "./RouteRail.vue";
import TopLine from "./TopLine.vue";
import { useDossier } from "./useDossier";
import { useKeys } from "./useKeys";

const dossier = useDossier();
const { helpOpen } = useKeys(dossier);
</script>

<template>
  <div class="frame" :class="{ beside: dossier.subject.value }">
    <TopLine />
    <RouteRail />
    <main class="area"><RouterView /></main>
    <DossierPanel v-if="dossier.subject.value" :key="dossier.subject.value" :subject="dossier.subject.value" />
    <KeyHelp v-model="helpOpen" />
  </div>
</template>

<style scoped>
.frame {
  height: 100vh; display: grid; grid-template: 48px minmax(0, 1fr) / 196px minmax(0, 1fr); overflow: hidden;
}
.frame.beside { grid-template-columns: 196px minmax(0, 1fr) 384px; }
.area { min-width: 0; min-height: 0; position: relative; overflow: hidden; }
@media (max-width: 1180px) { .frame.beside { grid-template-columns: 196px minmax(0, 1fr) 340px; } }
</style>
