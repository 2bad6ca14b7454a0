import { Text } from "@chakra-ui/react";
import { useEffect, useState } from "react";
import { api, got } from "../api/client";
import type { Between } from "../api/types";
import { messageOf } from "../cut/useSearch";
import { useBench } from "../draft/store";
import { Group, PlainChoice } from "../fields/controls";
import { showLength } from "../units/show";

const RESTED_MS = 400;

/** How far any two things are apart, asked for by name. */
export function TwoThings() {
  const design = useBench((s) => s.history.now.design);
  const style = useBench((s) => s.style);
  const [names, setNames] = useState<readonly string[]>([]);
  const [pair, setPair] = useState({ one: "", two: "" });
  const [found, setFound] = useState<Between | null>(null);
  const [trouble, setTrouble] = useState("");
  useEffect(() => {
    let gone = false;
    // asked when the design has rested: a number that is being typed is no question
    const timer = setTimeout(() => {
      const { jobId, history } = useBench.getState();
      const body = { job_id: jobId, design, survey: history.now.survey, ...pair };
      got(api.POST("/api/between", { body }))
        .then((answer) => {
          if (gone) return;
          setNames(answer.things);
          setFound(answer.found ?? null);
          setTrouble("");
        })
        .catch((error) => {
          if (gone) return;
          setFound(null);
          setTrouble(messageOf(error));
        });
    }, RESTED_MS);
    return () => {
      gone = true;
      clearTimeout(timer);
    };
  }, [design, pair]);
  const choices = [["", "choose"] as const, ...names.map((name) => [name, name] as const)];
  return (
    <Group title="How far apart are two things?">
      <PlainChoice label="One" value={pair.one} choices={choices} choose={(one) => setPair({ ...pair, one })} free />
      <PlainChoice
        label="The other"
        value={pair.two}
        choices={choices}
        choose={(two) => setPair({ ...pair, two })}
        free
      />
      {trouble && <Text role="alert">{trouble}</Text>}
      {found && (
        <Text fontSize="14px" mt="1" aria-live="polite">
          {found.gap_mm <= 0 ? (
            <b>They meet{found.gap_mm < 0 && `, by ${showLength(-found.gap_mm, style)}`}</b>
          ) : (
            <>
              <b>{showLength(found.gap_mm, style)}</b> at the least
            </>
          )}
          {found.travel_mm != null &&
            `, at ${showLength(Math.abs(found.travel_mm), style)} ${found.travel_mm < 0 ? "droop" : "bump"}`}
          {found.roll_deg ? `, ${found.roll_deg.toFixed(1)}° of roll` : ""}
          {found.input
            ? `, ${Math.round(100 * Math.abs(found.input))} % of lock to the ${found.input > 0 ? "right" : "left"}`
            : ""}
          {found.at_rest_mm != null && `; ${showLength(found.at_rest_mm, style)} at ride height`}.
        </Text>
      )}
    </Group>
  );
}
