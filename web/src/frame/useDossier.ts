import { computed } from "vue";
import { useRoute, useRouter } from "vue-router";

/** The dossier's subject, a database's key, kept in the address so that it survives moving between stations. */
export function useDossier() {
  const route = useRoute();
  const router = useRouter();
  const subject = computed(() => (typeof route.query.subject === "string" ? route.query.subject : ""));
  const tab = computed(() => (typeof route.query.tab === "string" ? route.query.tab : "facts"));

  function set(query: Record<string, string | undefined>) {
    return router.replace({ query: { ...route.query, ...query } });
  }
  return {
    subject,
    tab,
    open: (key: string) => set({ subject: key }),
    close: () => set({ subject: undefined, tab: undefined }),
    show: (name: string) => set({ tab: name }),
  };
}

export type Dossier = ReturnType<typeof useDossier>;
