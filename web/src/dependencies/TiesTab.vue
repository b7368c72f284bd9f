<script setup lang="ts">
import { computed } from "vue";
import { useDossier } from "../frame/useDossier";
import { time, words } from "../shared/format";
import { useDependencies, useProgramme } from "../shared/queries";

const props = defineProps<{ subject: string }>();
const dossier = useDossier();
const { zone } = useProgramme();
const { data: dependencies } = useDependencies();
const ties = computed(() => dependencies.value?.ties.filter((tie) => tie.from === props.subject || tie.to === props.subject) ?? []);
const group = computed(() => dependencies.value?.groups.find((one) => one.members.includes(props.subject)));
</script>

<template>
  <p v-if="group && group.members.length > 1" class="group">
    Crosses together with
    <template v-for="(member, i) in group.members.filter((key) => key !== subject)" :key="member"><template v-if="i">, </template><button class="link" @click="dossier.open(member)">{{ member }}</button></template>.
  </p>
  <p v-if="dependencies && !ties.length" class="empty">No tie to another database is known.</p>
  <ul>
    <li v-for="tie in ties" :key="tie.id">
      <div>
        <b>{{ words(tie.kind) }}</b> {{ tie.from === subject ? "to" : "from" }}
        <button class="link" @click="dossier.open(tie.from === subject ? tie.to : tie.from)">{{ tie.from === subject ? tie.to : tie.from }}</button>
        <span v-if="tie.state !== 'CONFIRMED'" class="chip warn">{{ words(tie.state) }}</span>
      </div>
      <span v-for="(one, i) in tie.evidence" :key="i" class="dim">{{ one.words }}; {{ words(one.origin) }}, {{ one.source }}, {{ time(one.at, zone) }}</span>
    </li>
  </ul>
</template>

<style scoped>
.group { padding: 8px 0; }
ul { list-style: none; padding: 0; }
li { display: grid; padding: 7px 0; border-bottom: 1px solid var(--rule2); }
li .dim { font-size: 12px; }
</style>
