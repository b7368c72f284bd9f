<script setup lang="ts">
import { ref } from "vue";
import type { Schemas } from "../api/client";
import { ASKS_REASON, CONSEQUENCE, DANGER, MOVE_WORDS } from "./crossingWords";

const props = defineProps<{ move: Schemas["MoveRequest"]["move"]; crossing: Schemas["CrossingView"] }>();
const emit = defineEmits<{ close: []; move: [reason?: string] }>();
const reason = ref("");
const asks = ASKS_REASON.includes(props.move);
</script>

<template>
  <v-dialog :model-value="true" max-width="440" @update:model-value="emit('close')">
    <form class="sheet" role="dialog" :aria-label="MOVE_WORDS[move]" @submit.prevent="emit('move', reason || undefined)">
      <header><h2>{{ MOVE_WORDS[move] }}: {{ crossing.database }}</h2></header>
      <div class="body form">
        <p>{{ CONSEQUENCE[move] }}</p>
        <v-text-field v-if="asks" v-model="reason" label="Reason" autofocus maxlength="2000" />
      </div>
      <footer>
        <v-btn @click="emit('close')">Leave it</v-btn>
        <v-btn type="submit" :class="DANGER.includes(move) ? 'danger' : 'go'" :disabled="asks && !reason.trim()">{{ MOVE_WORDS[move] }} {{ crossing.key }}</v-btn>
      </footer>
    </form>
  </v-dialog>
</template>
