import { Box, Text } from "@chakra-ui/react";
import { useEffect, useState } from "react";
import { useMay } from "../app/session";
import { messageOf } from "../cut/useSearch";
import { seenDraft, useBench, usePick } from "../draft/store";
import { Act, ChoiceField, Group, Pair, WordsField } from "../fields/controls";
import { QuantityField } from "../fields/QuantityField";
import { showLength } from "../units/show";
import { LiftRows } from "./LiftRows";
import { findPlaces, freshStand, type Support, useStands } from "./useStands";

const NONE: Support[] = [];
const KINDS = [
  ["stand", "a stand from the floor"],
  ["leg", "a leg welded to the frame"],
  ["tie-down", "a tie that holds down"],
] as const;

/** Stands and legs under the frame, typed or found; how each part stands on them. */
export function StandsGroup() {
  const supports = useBench((s) => seenDraft(s).design.supports) ?? NONE;
  const draft = useBench((s) => seenDraft(s));
  const { act, style } = usePick("act", "style");
  const may = useMay();
  const { open, found, trouble, show, look } = useStands();
  const [chosen, setChosen] = useState<string | null>(null);
  const [told, setTold] = useState("");
  useEffect(() => void look(draft), [draft, look]);
  const find = async () => {
    try {
      const put = await findPlaces();
      setTold(put.length === 0 ? "No place holds every part: put legs or ties where you can." : "");
      if (put.length > 0) act({ kind: "set", path: ["design", "supports"], value: put });
      show(true);
    } catch (error) {
      setTold(messageOf(error));
    }
  };
  const add = async () => {
    try {
      const value = await freshStand();
      act({ kind: "insert", path: ["design", "supports"], value });
      setChosen(value.id);
      setTold("");
      show(true);
    } catch (error) {
      setTold(messageOf(error));
    }
  };
  const tipping = found?.moments.filter((m) => m.stands.some((s) => !s.holds)) ?? [];
  return (
    <Group title="Stands">
      <Text fontSize="14px" color={supports.length > 0 && tipping.length > 0 ? "removed" : undefined}>
        {found?.missing
          ? `Not computed: ${found.missing}.`
          : supports.length === 0
            ? "Not looked at: no stand is placed."
            : tipping.length === 0
              ? "Every part stands, before each cut and after it."
              : `${tipping.length === 1 ? "One moment does" : `${tipping.length} moments do`} not stand: the cuts that make them are shut.`}
      </Text>
      <Pair>
        <Act pressed={open} onClick={() => show(!open)}>
          {open ? "Back to the steps" : "Stands on the plan"}
        </Act>
        {may.design && <Act onClick={() => void find()}>Find places</Act>}
      </Pair>
      {(found?.idle ?? []).length > 0 && (
        <Text fontSize="14px" color="removed">
          Under nothing: {found?.idle?.join(", ")}.
        </Text>
      )}
      {(told || trouble) && (
        <Text role="alert" color="removed" fontSize="14px">
          {told || trouble}
        </Text>
      )}
      {open &&
        supports.map((support, index) => (
          <Box key={support.id} className="row">
            <button
              type="button"
              className="row-head"
              aria-expanded={chosen === support.id}
              onClick={() => setChosen(chosen === support.id ? null : support.id)}
            >
              <span className="row-words">
                <span className="row-title">{support.name}</span>{" "}
                <span className="row-tail">
                  {showLength(Math.abs(support.x_mm), style)} {support.x_mm < 0 ? "ahead of" : "behind"} the front axle,{" "}
                  {support.y_mm < 0 ? "left" : "right"}
                </span>
              </span>
            </button>
            {chosen === support.id && <Fields index={index} />}
          </Box>
        ))}
      {open && may.design && (
        <Box mt="1">
          <Act onClick={() => void add()}>Add a stand</Act>
        </Box>
      )}
      {open && <LiftRows />}
    </Group>
  );
}

function Fields({ index }: { index: number }) {
  const act = useBench((s) => s.act);
  const may = useMay();
  const path = ["design", "supports", index] as const;
  return (
    <Box pb="2">
      <WordsField label="Its name" path={[...path, "name"]} />
      <ChoiceField label="What it is" path={[...path, "kind"]} choices={KINDS} />
      <Pair>
        <QuantityField label="Behind the front axle" path={[...path, "x_mm"]} />
        <QuantityField label="Right of the centre" path={[...path, "y_mm"]} />
      </Pair>
      <QuantityField label="Rated for" path={[...path, "rating_kg"]} kind="mass" />
      {may.design && <Act onClick={() => act({ kind: "remove", path })}>Take it away</Act>}
    </Box>
  );
}
