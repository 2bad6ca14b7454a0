import { Box, Text } from "@chakra-ui/react";
import { useState } from "react";
import type { JobHead, Operation, SetFound } from "../api/types";
import { useBench, usePick } from "../draft/store";
import { Act } from "../fields/controls";
import { showAmount, tell } from "../units/tell";
import { SearchBox } from "./SearchBox";
import { StockFields } from "./StockFields";
import { useSearch } from "./useSearch";

const CAPPED: ReadonlySet<Operation["kind"]> = new Set(["notch"]);

/** Finds the lightest metal from the shop's stock with which nothing of an operation fails. */
export function Finder({ job, op }: { job: JobHead; op: Operation }) {
  const { jobId, style } = usePick("jobId", "style");
  const [old, setOld] = useState(false);
  const search = useSearch("/api/find/sets");
  const { answer } = search;
  const found = answer?.sets;
  const find = () => {
    const { design, survey } = useBench.getState().history.now;
    setOld(false);
    void search.find({ job_id: jobId, design, survey, operation_id: op.id }, op);
  };
  const use = (choice: SetFound) => {
    if (!layOn(choice, search.asked as Operation)) return setOld(true);
    search.forget();
  };
  return (
    <SearchBox
      title="Find the lightest metal"
      ask="Find the lightest that holds"
      search={search}
      find={find}
      stock={<StockFields job={job} caps={CAPPED.has(op.kind)} />}
    >
      {search.progress && answer?.best && (
        <Text>
          Best so far: {tell(answer.best.words, style)},{" "}
          {showAmount({ value: answer.best.mass_kg, kind: "mass" }, style)} a side.
        </Text>
      )}
      {old && <Text role="alert">This operation has changed since: search again.</Text>}
      {found?.reason && <Text>{tell(found.reason, style)}</Text>}
      {found && found.choices.length > 0 && (
        <>
          <Text>
            {found.tried} sets tried, {found.judged} judged whole. With each of these nothing of it fails, lightest
            first.
          </Text>
          {found.choices.map((choice, i) => (
            <Box key={choice.words.text} mt="1" borderTopWidth="1px" borderColor="rule" pt="1">
              <Text>
                <b>{showAmount({ value: choice.mass_kg, kind: "mass" }, style)} a side</b>: {tell(choice.words, style)}
              </Text>
              <Text color="faint">Least room: {choice.worst}.</Text>
              <Act main={i === 0} onClick={() => use(choice)}>
                {i === 0 ? "Use this set" : "Use this one"}
              </Act>
            </Box>
          ))}
        </>
      )}
    </SearchBox>
  );
}

/** Lay a set on the draft as it is now; refused where the operation is not the one that was asked about. */
function layOn(choice: SetFound, asked: Operation): boolean {
  const { history, act } = useBench.getState();
  const { operations } = history.now.design;
  const now = operations.find((op) => op.id === asked.id);
  if (!now || JSON.stringify(now) !== JSON.stringify(asked)) return false;
  const changed = new Map(choice.changed.map((op) => [op.id, op]));
  const value = [...operations.map((op) => changed.get(op.id) ?? op), ...choice.added];
  act({ kind: "set", path: ["design", "operations"], value });
  return true;
}
