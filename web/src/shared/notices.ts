import { ref } from "vue";
import { RequestError, type Problem } from "../api/client";

export interface Notice {
  tone: "done" | "problem";
  text: string;
  problem?: Problem;
}

export const notice = ref<Notice>();

export function done(text: string): void {
  notice.value = { tone: "done", text };
}

/** Shows why something was not done; a conflict comes with both values. */
export function failed(error: unknown): void {
  const problem = error instanceof RequestError ? error.problem : undefined;
  const both = problem?.theirs ? ` Theirs: ${problem.theirs}. Yours: ${problem.yours}.` : "";
  notice.value = {
    tone: "problem",
    text: (error instanceof Error ? error.message : String(error)) + both,
    problem,
  };
}

/** Runs an action and tells how it went; true when it was done. */
export async function attempt(action: () => Promise<unknown>, said?: string): Promise<boolean> {
  try {
    await action();
    if (said) done(said);
    return true;
  } catch (error) {
    failed(error);
    return false;
  }
}
