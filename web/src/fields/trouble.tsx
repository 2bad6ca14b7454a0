import { Text } from "@chakra-ui/react";
import type { Problem } from "../api/types";
import type { Path } from "../draft/document";
import type { Raw } from "../draft/raw";
import { seenDraft, useBench } from "../draft/store";
import { useShown } from "../evaluation/useEvaluation";

/** The JSON pointer of a draft path. */
export const pointerOf = (path: Path): string => `/${path.join("/")}`;

/** Whether two sets of a field's props say the same: paths by their steps, the rest as they are. */
export function sameField<P extends { path: Path }>(a: P, b: P): boolean {
  const keys = new Set([...Object.keys(a), ...Object.keys(b)]) as Set<keyof P>;
  for (const key of keys) {
    if (key === "path" ? pointerOf(a.path) !== pointerOf(b.path) : a[key] !== b[key]) return false;
  }
  return true;
}

/** The evaluation's problem at a field, if it has one. */
export function useProblem(pointer: string): Problem | undefined {
  return useShown((s) => s.problems.find((p) => p.pointer === pointer));
}

/** Whether the value of a field was assumed: nobody typed it yet. */
export function useAssumed(path: Path): boolean {
  const root = path[0] === "survey" ? "survey" : "design";
  return useBench((s) => `/${path.slice(1).join("/")}` in (seenDraft(s)[root].assumed ?? {}));
}

/** What is wrong at a field: the typed text with the place of the error, or the core's refusal. */
export function FieldTrouble({ raw, problem }: { raw?: Raw; problem?: Problem }) {
  if (raw?.message) {
    const at = raw.position ?? raw.text.length;
    return (
      <Text role="alert" fontSize="14px" color="removed">
        <code style={{ whiteSpace: "pre" }}>
          {raw.text.slice(0, at)}
          <mark aria-hidden="true">‸</mark>
          {raw.text.slice(at)}
        </code>{" "}
        {raw.message}, {raw.acceptable}
      </Text>
    );
  }
  if (!problem) return null;
  return (
    <Text role="alert" fontSize="14px" color="removed">
      {problem.message}
      {problem.found && `: ${problem.found}`}
      {problem.expected && `. Give ${problem.expected}.`}
    </Text>
  );
}
