import { computed } from "vue";
import { useRoute, useRouter } from "vue-router";
import { COLUMN_SETS, GROUPINGS } from "./columns";
import type { ObjectKind } from "./estate";
import { FACETS, type Filters, type Lens } from "./rows";

const KINDS: ObjectKind[] = ["DATABASE", "INSTANCE", "HOST", "APPLICATION"];
const LENSES: Lens[] = ["gaps", "contradicted", "stale"];
/** The address's names of everything that makes a view; the dossier's are its own. */
export const VIEW_NAMES = ["show", "by", "sort", "down", "lens", "find", "cols", ...new Set(Object.values(FACETS).flat())];

/** The address changes as a whole; what is the same as before stays the same object, so that nothing is worked out anew. */
function unlessSame<T>(before: T | undefined, next: T): T {
  return before && JSON.stringify(before) === JSON.stringify(next) ? before : next;
}

/** Kind, filters, lens, columns, grouping and sort, kept in the address. */
export function useTableState() {
  const route = useRoute();
  const router = useRouter();
  const text = (name: string) => (typeof route.query[name] === "string" ? (route.query[name] as string) : undefined);
  const set = (query: Record<string, string | undefined>) => router.replace({ query: { ...route.query, ...query } });
  const nothing = () => Object.fromEntries(VIEW_NAMES.map((name) => [name, undefined]));

  const kind = computed<ObjectKind>(() => KINDS.find((one) => one.toLowerCase() === text("show")) ?? "DATABASE");
  const filters = computed<Filters>((before) =>
    unlessSame(before, Object.fromEntries(FACETS[kind.value].flatMap((facet) => (text(facet) ? [[facet, text(facet)!.split("|")]] : [])))),
  );
  const lens = computed(() => LENSES.find((one) => one === text("lens")));
  const columns = computed<string[]>((before) => {
    const sets = COLUMN_SETS[kind.value];
    const wanted = text("cols");
    if (!wanted) return sets[0].columns;
    return sets.find((one) => one.name === wanted)?.columns ?? unlessSame(before, wanted.split(","));
  });
  const columnSet = computed(() => {
    const wanted = text("cols") ?? COLUMN_SETS[kind.value][0].name;
    return COLUMN_SETS[kind.value].some((one) => one.name === wanted) ? wanted : "my own";
  });
  return {
    kind,
    filters,
    lens,
    columns,
    columnSet,
    find: computed(() => text("find") ?? ""),
    grouping: computed(() => (GROUPINGS[kind.value].includes(text("by") ?? "") ? text("by")! : GROUPINGS[kind.value][0])),
    sortBy: computed(() => text("sort") ?? "name"),
    down: computed(() => text("down") === "1"),
    /** The query of this view's address, for saving it. */
    address: computed(() => {
      const kept = VIEW_NAMES.flatMap((name) => (text(name) ? [[name, text(name)!]] : []));
      return new URLSearchParams(kept).toString();
    }),
    toggle(facet: string, value: string) {
      const now = filters.value[facet] ?? [];
      const next = now.includes(value) ? now.filter((other) => other !== value) : [...now, value];
      return set({ [facet]: next.length ? next.join("|") : undefined });
    },
    clear: () => set({ ...Object.fromEntries(FACETS[kind.value].map((facet) => [facet, undefined])), lens: undefined, find: undefined }),
    show: (one: ObjectKind) => set({ ...nothing(), show: one === "DATABASE" ? undefined : one.toLowerCase() }),
    groupBy: (by: string) => set({ by: by === GROUPINGS[kind.value][0] ? undefined : by }),
    showColumns: (names: string) => set({ cols: names === COLUMN_SETS[kind.value][0].name ? undefined : names }),
    search: (words: string) => set({ find: words || undefined }),
    look: (through: Lens | undefined) => set({ lens: through }),
    open: (address: string) => set({ ...nothing(), ...Object.fromEntries(new URLSearchParams(address)) }),
    sort(column: string) {
      const now = text("sort") ?? "name";
      const turn = now === column && text("down") !== "1";
      return set({ sort: column === "name" ? undefined : column, down: turn ? "1" : undefined });
    },
  };
}
export type TableState = ReturnType<typeof useTableState>;
