import { Box, Flex, Text } from "@chakra-ui/react";
import { useEffect, useRef } from "react";
import { useCatalogue } from "../api/catalogue";
import type { JobHead, Operation } from "../api/types";
import { useMay } from "../app/session";
import type { Draft } from "../draft/document";
import { useBench } from "../draft/store";
import { anchorOf } from "../drawing/handles";
import { useLooking } from "../drawing/view";
import { useShown } from "../evaluation/useEvaluation";
import { ChoiceField } from "../fields/controls";
import { Stiffness } from "../survey/CrossmemberTable";
import { showFigure } from "../units/figure";
import { AddOperation } from "./AddOperation";
import { AlongList } from "./AlongList";
import { Finder } from "./Finder";
import { InterimList, TakenAlongList } from "./Meanwhile";
import { OperationFields, useForm } from "./OperationFields";

const SPARES = [
  ["not said", "not said"],
  ["fit", "still fit"],
  ["do not fit", "do not fit any more"],
] as const;

/** What comes out of the rail and what goes back in. */
export default function CutPanel({ job }: { job: JobHead }) {
  // the committed draft: while a handle is dragged only the fields it moves draw again
  const draft = useBench((s) => s.history.now);
  const act = useBench((s) => s.act);
  const put = useBench((s) => s.put);
  const may = useMay();
  const operations = draft.design.operations;
  const chosen = useBench((s) => s.selected);
  const open =
    operations.find((op) => chosen?.startsWith(op.id)) ?? operations.find((op) => op.kind === "notch") ?? operations[0];
  const form = useForm(open);
  const { forms } = useCatalogue();
  const add = (value: Operation) => {
    act({ kind: "insert", path: ["design", "operations"], value });
    put({ selected: value.id });
    lookAtOperation(draft, value);
  };
  const opened = useRef<HTMLDivElement>(null);
  const openId = open?.id;
  // biome-ignore lint/correctness/useExhaustiveDependencies: the form that was opened comes into view, and its place on the sheet
  useEffect(() => {
    opened.current?.scrollIntoView({ block: "nearest" });
    if (open) lookAtOperation(draft, open);
  }, [openId]);
  return (
    <>
      {operations.length === 0 && (
        <Text fontSize="14px" mb="2">
          Nothing is cut yet. Set the target first, then add a notch over the axle; box the rail where the notch will
          be.
        </Text>
      )}
      {operations.map((op, index) => (
        <Box
          key={op.id}
          ref={op === open ? opened : undefined}
          mb="2"
          borderWidth="1px"
          borderColor={op === open ? "chalk" : "rule"}
        >
          <Flex
            as="button"
            width="100%"
            textAlign="start"
            px="2"
            minH="36px"
            align="center"
            bg="sheet"
            aria-expanded={op === open}
            onClick={() => {
              put({ selected: op.id });
              lookAtOperation(draft, op);
            }}
          >
            <Text fontWeight="600" flex="1">
              {op.name}
            </Text>
            <Text fontSize="13px" color="faint">
              {forms.find((f) => f.kind === op.kind)?.one_piece
                ? "rail to rail"
                : op.side === "both"
                  ? "both rails"
                  : op.side}
            </Text>
          </Flex>
          {op === open && (
            <Box p="2">
              {form && <OperationFields op={op} form={form} index={index} />}
              {form?.searched && may.design && <Finder key={op.id} job={job} op={op} />}
            </Box>
          )}
        </Box>
      ))}
      {may.design && <AddOperation add={add} />}
      <Box my="2">
        <ChoiceField label="Spares of the stock parts" path={["design", "stock_spares"]} choices={SPARES} />
        <p className="small-words row-tail">
          Default: change the rail and leave donor rack, crossmember and arms stock, so that spares fit.
        </p>
      </Box>
      <MassAdded />
      <Stiffness />
      <AlongList />
      <TakenAlongList />
      <InterimList />
    </>
  );
}

/** Bring an operation into view and cut the section there, unless it is on the sheet already. */
function lookAtOperation(draft: Draft, op: Operation) {
  const place = "place" in op ? op.place : "start" in op ? (op.start ?? op.end) : null;
  if (!place) return;
  const at = anchorOf(draft, place.anchor_id) + (place.offset_mm ?? 0);
  const { view, look } = useLooking.getState();
  if (at > view.x0 + 60 && at < view.x1 - 60) return;
  useBench.getState().put({ stationMm: at });
  look({ x0: at - 520, x1: at + 520 });
}

/** Apart, because it changes with every move of a drag and the panel's fields do not. */
function MassAdded() {
  const mass = useShown((s) => s.result?.mass_added_kg ?? 0);
  const weld = useShown((s) => s.result?.weld_mm ?? 0);
  const style = useBench((s) => s.style);
  return (
    <p className="mass">
      Metal added: {showFigure(mass, "kg", style)} in all, held by {showFigure(weld / 1000, "m", style, 2)} of weld.
    </p>
  );
}
