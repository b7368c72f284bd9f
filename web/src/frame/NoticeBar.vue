<script setup lang="ts">
import { computed } from "vue";
import { notice } from "../shared/notices";

const shown = computed({
  get: () => notice.value !== undefined,
  set: (on) => {
    if (!on) notice.value = undefined;
  },
});
</script>

<template>
  <v-snackbar
    v-model="shown"
    :timeout="notice?.tone === 'problem' ? 12000 : 4000"
    :color="notice?.tone === 'problem' ? 'error' : 'primary'"
    location="bottom"
    rounded="sm"
    :role="notice?.tone === 'problem' ? 'alert' : 'status'"
  >
    {{ notice?.text }}
    <template #actions>
      <v-btn class="close" variant="text" @click="shown = false">Close</v-btn>
    </template>
  </v-snackbar>
</template>

<style scoped>
.t-btn.v-btn.close { background: transparent; color: inherit; }
</style>
