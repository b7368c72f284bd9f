import { computed } from "vue";
import { useRoute, useRouter } from "vue-router";
import type { ObjectKind } from "../inventory/estate";

/** The dossier's subject, kept in the address so that it survives moving between stations. */
export function useDossier() {
  const route = useRoute();
  const router = useRouter();
  const subject = computed(() => (typeof route.query.subject === "string" ? route.query.subject : ""));
  /** A database unless the address says otherwise. */
  const kind = computed<ObjectKind>(
    () => (["INSTANCE", "HOST", "APPLICATION"] as const).find((one) => one.toLowerCase() === route.query.kind) ?? "DATABASE",
  );
  const tab = computed(() => (typeof route.query.tab === "string" ? route.query.tab : "facts"));

  function set(query: Record<string, string | undefined>) {
    return router.replace({ query: { ...route.query, ...query } });
  }
  return {
    subject,
    tab,
    kind,
    open: (key: string, of: ObjectKind = "DATABASE") => set({ subject: key, kind: of === "DATABASE" ? undefined : of.toLowerCase() }),
    close: () => set({ subject: undefined, kind: undefined, tab: undefined }),
    show: (name: string) => set({ tab: name }),
  };
}

export type Dossier = ReturnType<typeof useDossier>;
