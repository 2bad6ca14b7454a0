import { useState } from "react";
import { api, got } from "../api/client";
import type { Operation } from "../api/types";
import { askedOfDraft } from "../draft/asked";
import type { Path } from "../draft/document";
import { useBench } from "../draft/store";
import { messageOf } from "./useSearch";

/** Something asked of the core, and why it was not answered. */
export function useAsk() {
  const [trouble, setTrouble] = useState("");
  const run = async (ask: () => Promise<void>) => {
    setTrouble("");
    try {
      await ask();
    } catch (error) {
      setTrouble(messageOf(error));
    }
  };
  return { trouble, run };
}

/** New work as the core begins it: on this survey, from this shop's plate. */
export function useFresh() {
  const { trouble, run: tried } = useAsk();
  /** A new operation of a kind. */
  const operation = (kind: string, take: (op: Operation) => void) =>
    tried(async () =>
      take(await askedOfDraft((draft) => got(api.POST("/api/operations/fresh", { body: { ...draft, kind } })))),
    );
  const begun = (id: string, at: string, choice: string) =>
    askedOfDraft((draft) =>
      got(api.POST("/api/operations/part", { body: { ...draft, operation_id: id, at, choice } })),
    );
  /** Put a part of an operation in at a path. */
  const part = (id: string, path: Path, at: string, choice = "") =>
    tried(async () => useBench.getState().act({ kind: "set", path, value: await begun(id, at, choice) }));
  /** One more of a part that an operation has any number of. */
  const piece = (id: string, path: Path, at: string) =>
    tried(async () => useBench.getState().act({ kind: "insert", path, value: await begun(id, at, "") }));
  return { operation, part, piece, trouble };
}
