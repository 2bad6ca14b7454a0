import { useState } from "react";
import { api, got } from "../api/client";
import type { Layout } from "../api/types";
import { messageOf } from "../cut/useSearch";
import { askedOfDraft } from "../draft/asked";
import type { Path } from "../draft/document";
import { useBench } from "../draft/store";

type Root = "design" | "survey";

/** Suspensions and their parts as the core begins them: on the hubs as they stand, where there is frame. */
export function useBegun() {
  const [trouble, setTrouble] = useState("");
  const put = async (path: Path, ask: () => Promise<unknown>, kind: "set" | "insert" = "set") => {
    setTrouble("");
    try {
      const value = await ask();
      useBench.getState().act({ kind, path, value });
      return true;
    } catch (error) {
      setTrouble(messageOf(error));
      return false;
    }
  };
  const suspension = (root: Root, axle: "front" | "rear", kind: Layout["kind"]) =>
    put(
      [root, "suspensions"],
      () =>
        askedOfDraft((draft) =>
          got(api.POST("/api/suspensions/fresh", { body: { ...draft, axle, kind, before: root === "survey" } })),
        ),
      "insert",
    );
  /** A part of a suspension at `path`; `kind` where there are several kinds of it. */
  const part = (path: Path, name: string, kind = "", way: "set" | "insert" = "set") => {
    const [root, , index] = path;
    return put(
      path,
      () =>
        askedOfDraft((draft) =>
          got(
            api.POST("/api/suspensions/part", {
              body: { ...draft, suspension: Number(index) || 0, part: name, kind, before: root === "survey" },
            }),
          ),
        ),
      way,
    );
  };
  return { suspension, part, trouble };
}
