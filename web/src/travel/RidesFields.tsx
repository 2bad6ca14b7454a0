import { Text } from "@chakra-ui/react";
import { useState } from "react";
import { useCatalogue } from "../api/catalogue";
import { api, got } from "../api/client";
import type { Grip, Suspension } from "../api/types";
import { messageOf } from "../cut/useSearch";
import { askedOfDraft } from "../draft/asked";
import { shownDraft, useBench, usePick } from "../draft/store";
import { Act, Group, PlainChoice } from "../fields/controls";
import { showLength } from "../units/show";
import { useAxlePart } from "./useAxle";

/** What things can go with when rails are cut, by name. */
export function useCarriers(): (readonly [string, string])[] {
  const operations = useBench((s) => shownDraft(s).design.operations);
  const { forms } = useCatalogue();
  const carriers = operations.flatMap((op) => {
    const words = forms.find((f) => f.kind === op.kind)?.carries;
    return words ? [[op.id, words.replace("{name}", op.name)] as const] : [];
  });
  return [
    ["rail", "the rail where it stands"],
    ["body", "the body between the axles"],
    ...carriers,
    ["placed", "nothing: it stays as placed in the plan"],
  ];
}

/** What the frame ends and hubs of a suspension go with; it stands where it stood when the choice is changed. */
export function RidesFields({ own, index }: { own: Suspension; index: number }) {
  const { act } = usePick("act");
  const style = useBench((s) => s.style);
  const carriers = useCarriers();
  const grips = useAxlePart("grips") ?? [];
  const [each, setEach] = useState(false);
  const [trouble, setTrouble] = useState("");
  const rides = own.rides ?? "placed";
  const choose = async (carrier: string, path = "") => {
    setTrouble("");
    try {
      const value = await askedOfDraft((draft) =>
        got(api.POST("/api/rides", { body: { ...draft, suspension: index, rides: carrier, path } })),
      );
      act({ kind: "set", path: ["design", "suspensions", index], value });
    } catch (error) {
      setTrouble(messageOf(error));
    }
  };
  const head = `suspensions.${index}.`;
  const ends = grips.filter((g) => g.at.body < 0 && g.path.startsWith(head));
  const moved = ends.filter((g) => g.shift?.some((mm) => Math.abs(mm) > 0.05));
  return (
    <Group title="What it rides with">
      <PlainChoice
        label="Frame ends and hubs go with"
        value={rides}
        choices={carriers}
        choose={(c) => void choose(c)}
      />
      <p className="small-words row-tail">
        {rides === "placed"
          ? "Points are given where they stand in the plan; a changed step leaves them behind."
          : `Points are given on the frame as it was surveyed; the plan moves ${moved.length} of ${ends.length} frame ends.`}
      </p>
      {trouble && <Text role="alert">{trouble}</Text>}
      {rides !== "placed" && ends.length > 0 && (
        <Act onClick={() => setEach(!each)}>{each ? "Enough" : "End by end"}</Act>
      )}
      {each &&
        ends.map((grip) => (
          <PlainChoice
            key={grip.path}
            label={`${grip.name}${movedBy(grip, style)}`}
            value={own.rides_but?.[grip.path.slice(head.length)] ?? rides}
            choices={carriers}
            choose={(c) => void choose(c, grip.path.slice(head.length))}
          />
        ))}
    </Group>
  );
}

const WAYS = [
  ["rearward", "forward"],
  ["to the right", "to the left"],
  ["up", "down"],
] as const;

/** How far the plan has moved a point, in words. */
function movedBy(grip: Grip, style: Parameters<typeof showLength>[1]): string {
  const told = (grip.shift ?? []).flatMap((mm, k) => {
    const way = WAYS[k]?.[mm > 0 ? 0 : 1];
    return way && Math.abs(mm) > 0.05 ? [`${showLength(Math.abs(mm), style)} ${way}`] : [];
  });
  return told.length > 0 ? `: ${told.join(", ")}` : ": not moved";
}
