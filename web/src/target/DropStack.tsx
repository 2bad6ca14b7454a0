import { Box, Flex, Text } from "@chakra-ui/react";
import { useCatalogue } from "../api/catalogue";
import type { AxleName, DropEntry, DropResult } from "../api/types";
import { useMay } from "../app/session";
import { type Draft, freshId } from "../draft/document";
import { shownDraft, useBench } from "../draft/store";
import { NONE, useShown } from "../evaluation/useEvaluation";
import { Act, Group, PlainChoice, TickField, WordsField } from "../fields/controls";
import { QuantityField } from "../fields/QuantityField";
import { FieldTrouble, useProblem } from "../fields/trouble";
import { showLength } from "../units/show";

/** What the drop is made of; one amount may stay empty and is solved. */
export function DropStack({ axle }: { axle: AxleName }) {
  const entries = useBench((s) => stackOf(shownDraft(s), axle)?.entries ?? NONE);
  const style = useBench((s) => s.style);
  const act = useBench((s) => s.act);
  const drop = useDrop(axle);
  const may = useMay();
  const { mechanisms } = useCatalogue();
  const path = [...stackPath(axle), "entries"];
  const add = () => {
    const [first] = mechanisms;
    if (!first) return;
    const id = freshId(
      "drop",
      entries.map((e) => e.id),
    );
    const { name, mechanism, keeps, costs_travel } = first;
    act({
      kind: "insert",
      path,
      value: { id, name, mechanism, amount_mm: 0, keeps, costs_travel } satisfies DropEntry,
    });
  };
  return (
    <Group title="Made up of" extra={drop && <Text fontSize="14px">{showLength(drop.total_mm, style)} in all</Text>}>
      {entries.map((entry, i) => (
        <Entry key={entry.id} axle={axle} entry={entry} index={i} />
      ))}
      {drop?.entries
        .filter((e) => e.caused)
        .map((e) => (
          <Flex key={e.id} justify="space-between" gap="2" p="2" mb="2" borderWidth="1px" borderColor="rule">
            <Text fontSize="14px">
              {e.name} <span className="row-tail">made by the cut, follows it</span>
            </Text>
            <Text fontSize="14px" fontVariantNumeric="tabular-nums" whiteSpace="nowrap">
              {showLength(e.amount_mm, style)}
            </Text>
          </Flex>
        ))}
      {may.design && <Act onClick={add}>Add a contribution</Act>}
      {drop && drop.entries.length > 0 && (
        <>
          <Text fontSize="14px" mt="1">
            {showLength(drop.towards_rail_mm, style)} of it brings the axle closer to the rail.
          </Text>
          <Kept drop={drop} />
        </>
      )}
    </Group>
  );
}

/** What the whole stack leaves as it was, each judged for itself, and what loses it. */
function Kept({ drop }: { drop: DropResult }) {
  const rows = [
    ["Camber", drop.camber_lost_to],
    ["Toe", drop.toe_lost_to],
    ["Anti-dive", drop.anti_dive_lost_to],
  ] as const;
  return (
    <table className="figures" aria-label="What the stack keeps">
      <tbody>
        {rows.map(([name, lost]) => (
          <tr key={name}>
            <th scope="row">{name}</th>
            <td style={{ whiteSpace: "normal" }}>{lost.length ? `moved by ${lost.join(", ")}` : "kept"}</td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}

export const stackPath = (axle: AxleName): string[] =>
  axle === "front" ? ["design", "targets", "front"] : ["design", "targets"];

const stackOf = (draft: Draft, axle: AxleName) =>
  axle === "front" ? draft.design.targets.front : draft.design.targets;

const useDrop = (axle: AxleName) => useShown((s) => (axle === "front" ? s.result?.drop_front : s.result?.drop));

function Entry({ axle, entry, index }: { axle: AxleName; entry: DropEntry; index: number }) {
  const act = useBench((s) => s.act);
  const style = useBench((s) => s.style);
  const solved = useDrop(axle)?.entries.find((e) => e.id === entry.id);
  const [open, setOpen] = [entry.id === useBench((s) => s.selected), useBench((s) => s.put)];
  const path = [...stackPath(axle), "entries", index];
  const { mechanisms } = useCatalogue();
  const problem = useProblem(`/${path.join("/")}/amount_mm`);
  const choose = (key: string) => {
    const next = mechanisms.find((m) => m.mechanism === key);
    if (next) act({ kind: "set", path, value: { ...entry, ...next } });
  };
  const kept = [entry.keeps.camber && "camber", entry.keeps.toe && "toe", entry.keeps.anti_dive && "anti-dive"].filter(
    Boolean,
  );
  return (
    <Box p="2" mb="2" bg="sheet" borderWidth="1px" borderColor="rule">
      <Box display="grid" gap="1">
        <PlainChoice
          label="Mechanism"
          value={entry.mechanism}
          choices={mechanisms.map((m) => [m.mechanism, m.name] as const)}
          choose={choose}
        />
        <QuantityField
          label="Amount"
          path={[...path, "amount_mm"]}
          optional
          instead={solved?.solved ? `${showLength(solved.amount_mm, style)} (solved)` : "solve it"}
        />
      </Box>
      <FieldTrouble problem={entry.amount_mm === null ? problem : undefined} />
      {entry.mechanism === "notch" && (
        <Text role="alert" fontSize="14px" color="removed" fontWeight="600">
          A notch lowers nothing: it buys travel. This entry counts as zero; give the drop to springs, spindles, pivots
          or a step.
        </Text>
      )}
      <Flex justify="space-between" align="center" gap="2">
        <Text fontSize="13px" color="faint">
          {kept.length ? `Keeps ${kept.join(", ")}` : "Moves along the curves"};{" "}
          {entry.costs_travel ? "costs travel" : "no travel"}.
        </Text>
        <Act onClick={() => setOpen({ selected: open ? null : entry.id })}>{open ? "Less" : "More"}</Act>
      </Flex>
      {open && (
        <Box>
          <WordsField label="Name" path={[...path, "name"]} />
          <TickField label="keeps camber" path={[...path, "keeps", "camber"]} />
          <TickField label="keeps toe" path={[...path, "keeps", "toe"]} />
          <TickField label="keeps anti-dive" path={[...path, "keeps", "anti_dive"]} />
          <TickField label="costs travel: brings the axle closer to the rail" path={[...path, "costs_travel"]} />
          <Act onClick={() => act({ kind: "remove", path })}>Take it out</Act>
        </Box>
      )}
    </Box>
  );
}
