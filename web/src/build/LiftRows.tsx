import { Box, Text } from "@chakra-ui/react";
import { useState } from "react";
import { api, got } from "../api/client";
import type { components } from "../api/schema";
import { useMay } from "../app/session";
import { messageOf } from "../cut/useSearch";
import { seenDraft, useBench } from "../draft/store";
import { Act, Pair, PlainTick, WordsField } from "../fields/controls";
import { QuantityField } from "../fields/QuantityField";
import { useStands } from "./useStands";

type Lift = components["schemas"]["Lift"];
const NONE: Lift[] = [];

/** What a crane lifts off or out: which masses, before which work, on what hook. */
export function LiftRows() {
  const lifts = useBench((s) => seenDraft(s).design.lifts) ?? NONE;
  const found = useStands((s) => s.found?.lifts);
  const act = useBench((s) => s.act);
  const may = useMay();
  const [chosen, setChosen] = useState<string | null>(null);
  const [trouble, setTrouble] = useState("");
  const add = async () => {
    try {
      const { jobId, history } = useBench.getState();
      const value = await got(api.POST("/api/lifts/fresh", { body: { job_id: jobId, ...history.now } }));
      act({ kind: "insert", path: ["design", "lifts"], value });
      setChosen(value.id);
      setTrouble("");
    } catch (error) {
      setTrouble(messageOf(error));
    }
  };
  return (
    <Box mt="2">
      <Text fontSize="14px" fontWeight="600">
        On the crane
      </Text>
      {lifts.length === 0 && <Text fontSize="14px">Nothing is lifted off or out.</Text>}
      {lifts.map((lift, index) => {
        const own = found?.find((f) => f.lift === lift.id);
        return (
          <Box key={lift.id} className="row">
            <button
              type="button"
              className="row-head"
              aria-expanded={chosen === lift.id}
              onClick={() => setChosen(chosen === lift.id ? null : lift.id)}
            >
              <span className="row-words">
                <span className="row-title">{lift.name}</span> <span className="row-tail">{own?.words}</span>
              </span>
            </button>
            {chosen === lift.id && <Fields lift={lift} index={index} />}
          </Box>
        );
      })}
      {may.design && <Act onClick={() => void add()}>Add a lift</Act>}
      <Text role="alert" color="removed" fontSize="14px">
        {trouble}
      </Text>
    </Box>
  );
}

function Fields({ lift, index }: { lift: Lift; index: number }) {
  const { survey } = useBench((s) => seenDraft(s));
  const act = useBench((s) => s.act);
  const may = useMay();
  const path = ["design", "lifts", index] as const;
  const masses = lift.masses ?? [];
  const tick = (id: string, on: boolean) =>
    act({
      kind: "set",
      path: [...path, "masses"],
      value: on ? [...masses, id] : masses.filter((m) => m !== id),
    });
  return (
    <Box pb="2">
      <WordsField label="What is lifted" path={[...path, "name"]} />
      {survey.masses.map((m) => (
        <PlainTick
          key={m.id}
          label={m.name}
          value={masses.includes(m.id)}
          take={(on) => tick(m.id, on)}
          off={!may.design}
        />
      ))}
      <Pair>
        <QuantityField label="Crane lifts at this reach" path={[...path, "crane_kg"]} kind="mass" />
        <QuantityField label="More that hangs on it" path={[...path, "more_kg"]} kind="mass" />
      </Pair>
      <Pair>
        <QuantityField label="Hook behind the front axle" path={[...path, "hook_x_mm"]} />
        <QuantityField label="Strap moves it by" path={[...path, "strap_mm"]} />
      </Pair>
      {may.design && <Act onClick={() => act({ kind: "remove", path })}>Take it away</Act>}
    </Box>
  );
}
