import { onBeforeUnmount, onMounted, ref } from "vue";
import { useRoute, useRouter } from "vue-router";
import { stations } from "../router";
import type { Dossier } from "./useDossier";

/** A key that a view handles itself; sent to whatever view is shown. */
export const VIEW_KEY = "transitum-key";

function typing(target: EventTarget | null): boolean {
  return target instanceof HTMLElement && (target.isContentEditable || /^(INPUT|TEXTAREA|SELECT)$/.test(target.tagName));
}

/** The keyboard of the frame: search, stations, help, and closing the dossier. */
export function useKeys(dossier: Dossier) {
  const router = useRouter();
  const route = useRoute();
  const helpOpen = ref(false);

  function onKey(event: KeyboardEvent) {
    if (event.ctrlKey || event.metaKey || event.altKey || typing(event.target)) return;
    if (document.querySelector(".v-overlay--active .sheet") && event.key !== "?") return;
    const station = stations[Number(event.key) - 1];
    if (station) {
      const { subject, tab } = route.query;
      void router.push({ name: station.name, query: { subject, tab } });
    } else if (event.key === "/") {
      document.getElementById("find")?.focus();
    } else if (event.key === "?") {
      helpOpen.value = true;
    } else if (event.key === "Escape" && dossier.subject.value) {
      void dossier.close();
    } else if (["j", "k", "x", "Enter"].includes(event.key)) {
      window.dispatchEvent(new CustomEvent(VIEW_KEY, { detail: event.key }));
      return;
    } else {
      return;
    }
    event.preventDefault();
  }
  onMounted(() => window.addEventListener("keydown", onKey));
  onBeforeUnmount(() => window.removeEventListener("keydown", onKey));
  return { helpOpen };
}

/** Lets a view move along its list with j and k, open with Enter and select with x. */
export function useViewKeys(handle: (key: string) => void) {
  const listen = (event: Event) => handle((event as CustomEvent<string>).detail);
  onMounted(() => window.addEventListener(VIEW_KEY, listen));
  onBeforeUnmount(() => window.removeEventListener(VIEW_KEY, listen));
}
