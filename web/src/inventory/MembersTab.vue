<script setup lang="ts">
import { computed } from "vue";
import StatusMark from "../frame/StatusMark.vue";
import { useDossier } from "../frame/useDossier";
import { bytes } from "../shared/format";
import { useEstate, usePlaces } from "../shared/queries";
import { noun } from "./columns";
import type { EstateRow, ObjectKind } from "./estate";
import { sizeTogether } from "./rows";

const props = defineProps<{ subject: string; kind: ObjectKind }>();
const { data: databases } = useEstate("DATABASE");
const { byKey } = usePlaces();
const dossier = useDossier();
const belongs = (row: EstateRow) =>
  props.kind === "INSTANCE"
    ? row.instance === props.subject
    : row.text(props.kind === "HOST" ? "host" : "application") === props.subject;
const members = computed(() => (databases.value?.rows ?? []).filter(belongs));
</script>

<template>
  <p v-if="!members.length" class="empty">No database of the inventory belongs to it.</p>
  <template v-else>
    <p class="dim total">{{ members.length }} {{ noun("DATABASE", members.length) }}, {{ sizeTogether(members) }}</p>
    <ul>
      <li v-for="row in members" :key="row.key">
        <StatusMark v-if="byKey.get(row.key)" :state="byKey.get(row.key)!" />
        <button class="link" @click="dossier.open(row.key)">{{ kind === "INSTANCE" ? row.name : row.key }}</button>
        <span class="grow" />
        <span class="dim">{{ bytes(row.number("size_bytes")) }}</span>
      </li>
    </ul>
  </template>
</template>

<style scoped>
.total { padding: 6px 0; }
ul { list-style: none; padding: 0; }
li { display: flex; gap: 8px; align-items: center; padding: 6px 0; border-bottom: 1px solid var(--rule2); }
</style>
