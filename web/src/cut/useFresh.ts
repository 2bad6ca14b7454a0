import { useState } from "react";
import { api, got } from "../api/client";
import type { Operation } from "../api/types";
import { askedOfDraft } from "../draft/asked";
import type { Path } from "../draft/document";
import { useBench } from "../draft/store";
import { messageOf } from "./useSearch";

/** New work as the core begins it: on this survey, from this shop's plate. */
export function useFresh() {
  const [trouble, setTrouble] = useState("");
  const tried = async (ask: () => Promise<void>) => {
    setTrouble("");
    try {
      await ask();
    } catch (error) {
      setTrouble(messageOf(error));
    }
  };
  /** A new operation of a kind. */
  const operation = (kind: string, take: (op: Operation) => void) =>
    tried(async () =>
      take(await askedOfDraft((draft) => got(api.POST("/api/operations/fresh", { body: { ...draft, kind } })))),
    );
  /** Put a part of an operation in at a path. */
  const part = (id: string, path: Path, at: string, choice = "") =>
    tried(async () => {
      const value = await askedOfDraft((draft) =>
        got(api.POST("/api/operations/part", { body: { ...draft, operation_id: id, at, choice } })),
      );
      useBench.getState().act({ kind: "set", path, value });
    });
  return { operation, part, trouble };
}
