import { Text } from "@chakra-ui/react";
import { useState } from "react";
import { api, got } from "../api/client";
import { useMay } from "../app/session";
import { messageOf } from "../cut/useSearch";
import { askedOfDraft } from "../draft/asked";
import { useBench, usePick } from "../draft/store";
import { Act, Group } from "../fields/controls";
import { useAxlePart } from "./useAxle";

/** Brackets, mounts and plates that the suspension asks for, put into the plan or brought up to date. */
export function MountsAsked() {
  const mounts = useAxlePart("mounts");
  const { act } = usePick("act");
  const may = useMay();
  const [trouble, setTrouble] = useState("");
  const operations = useBench((s) => s.history.now.design.operations);
  if (mounts && !mounts.length)
    return (
      <Group title="Brackets and mounts">
        <Text fontSize="14px">
          They wait for the forces in links and springs: give masses and seats in the Survey. Sizes and welds follow
          from them.
        </Text>
      </Group>
    );
  if (!mounts) return null;
  const there = mounts.filter((m) => operations.some((op) => op.id === m.id)).length;
  const put = async () => {
    setTrouble("");
    try {
      const value = await askedOfDraft((body) => got(api.POST("/api/mounts", { body })));
      act({ kind: "set", path: ["design", "operations"], value });
    } catch (error) {
      setTrouble(messageOf(error));
    }
  };
  return (
    <Group title="Brackets and mounts">
      <Text fontSize="14px" mb="1">
        It asks for {mounts.length}: {mounts.map((m) => m.name).join("; ")}.
      </Text>
      {may.design && (
        <Act onClick={() => void put()} hint="They are checked, cut and welded with the rest of the Cut stage">
          {there ? "Bring brackets and mounts up to date" : "Put brackets and mounts into the plan"}
        </Act>
      )}
      {trouble && <Text role="alert">{trouble}</Text>}
      {there > 0 && (
        <Text fontSize="13px" color="faint">
          {there} of them are in the plan; their sizes are in the Cut stage.
        </Text>
      )}
    </Group>
  );
}
