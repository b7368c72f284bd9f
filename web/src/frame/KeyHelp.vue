<script setup lang="ts">
const open = defineModel<boolean>({ required: true });
const keys = [
  ["/", "search everything"],
  ["1 to 6", "go to a station"],
  ["j, k", "next, previous in the list"],
  ["Enter", "open the dossier"],
  ["x", "select"],
  ["Esc", "close the dossier or the dialog"],
  ["?", "this list"],
];
</script>

<template>
  <v-dialog v-model="open" max-width="380">
    <div class="sheet" role="dialog" aria-label="Keyboard">
      <header><h2>Keyboard</h2></header>
      <div class="body">
        <dl>
          <template v-for="[key, what] in keys" :key="key">
            <dt class="mono">{{ key }}</dt>
            <dd>{{ what }}</dd>
          </template>
        </dl>
      </div>
      <footer><v-btn @click="open = false">Close</v-btn></footer>
    </div>
  </v-dialog>
</template>

<style scoped>
dl { display: grid; grid-template-columns: 90px 1fr; row-gap: 8px; }
</style>
