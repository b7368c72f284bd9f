import vue from "@vitejs/plugin-vue";
import { defineConfig } from "vitest/config";
import vuetify from "vite-plugin-vuetify";

export default defineConfig({
  plugins: [vue(), vuetify({ autoImport: true })],
  build: {
    outDir: "target/classes/static",
    emptyOutDir: true,
    target: "es2022",
    chunkSizeWarningLimit: 900,
  },
  server: {
    proxy: { "/api": "http://127.0.0.1:8321", "/auth": "http://127.0.0.1:8321" },
  },
  test: { environment: "happy-dom", include: ["src/**/*.test.ts"], server: { deps: { inline: ["vuetify"] } } },
});
