<script setup lang="ts">
import { mayWork } from "../team/session";
import type { ObjectKind } from "./estate";

defineProps<{ kind: ObjectKind }>();
defineEmits<{ read: [] }>();
</script>

<template>
  <div v-if="kind === 'DATABASE'" class="empty">
    <h2>Nothing in the inventory yet</h2>
    <p>Read a spreadsheet of your servers and databases, or a live PostgreSQL, MariaDB or MySQL server. You see what it would change before anything is stored.</p>
    <div class="row"><v-btn v-if="mayWork" class="go" @click="$emit('read')">Read an inventory</v-btn></div>
    <p style="margin-top: 12px">To look around first, start <span class="mono">./transitum demo</span>.</p>
  </div>
  <div v-else class="empty">
    <h2>No {{ kind.toLowerCase() }} is known yet</h2>
    <p>They come with the files and servers that are read.</p>
  </div>
</template>
