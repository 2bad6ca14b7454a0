import { Box, Text } from "@chakra-ui/react";
import type { Notch } from "../api/types";
import { useMay } from "../app/session";
import { notches } from "../draft/document";
import { shownDraft, useBench, usePick } from "../draft/store";
import { NONE, useShown } from "../evaluation/useEvaluation";
import { Act, Group } from "../fields/controls";
import { showLength, snapUp } from "../units/show";
import { tell } from "../units/tell";
import { useFirstAnswer } from "./useFirstAnswer";

/** The cut where none is planned yet: with the plates that make it as strong as stock. */
function CutOne() {
  const { style, act, put } = usePick("style", "act", "put");
  const first = (useBench((s) => shownDraft(s).design.operations) ?? NONE).length === 0;
  const answer = useFirstAnswer(first);
  if (!answer?.operations.length) return answer ? <Text fontSize="14px">{tell(answer.words, style)}</Text> : null;
  const cutIt = () => {
    act({ kind: "set", path: ["design", "operations"], value: answer.operations });
    put({ stage: "cut" });
  };
  return (
    <Box>
      <Text fontSize="14px" mb="1">
        {tell(answer.words, style)}
      </Text>
      <Act main onClick={cutIt}>
        Cut it so
      </Act>
    </Box>
  );
}

/** The notch that the axle's path asks for, on both sides, and one step to make it so. */
export function NotchAsked() {
  const needed = useShown((s) => s.result?.notch_needed ?? NONE);
  const { style, act, put } = usePick("style", "act", "put");
  const may = useMay();
  const found = useBench((s) => shownDraft(s).design);
  const own = notches(found)[0];
  const pipe = useShown((s) => s.result?.figures?.find((f) => f.id === "half-pipe"));
  const cut = needed.filter((n) => n.depth_mm > 0);
  const length = (mm: number) => showLength(mm, style);
  if (needed.length === 0) {
    return (
      <Group title="Notch needed">
        <Text fontSize="14px">
          Not computed: wheelbase, tube diameter or tube-to-rail gap is missing in the survey.
        </Text>
      </Group>
    );
  }
  const arc = own?.notch.shape.kind !== "trapezoid";
  const depth = Math.max(...needed.map((n) => (arc ? n.arc_depth_mm : n.depth_mm)));
  const radius = Math.max(...needed.map((n) => n.radius_mm));
  const width = Math.max(...needed.map((n) => n.width_mm));
  const use = (notch: Notch, index: number) => {
    const shape =
      notch.shape.kind === "arc"
        ? { ...notch.shape, radius_mm: snapUp(radius, style) }
        : { ...notch.shape, mouth_width_mm: Math.max(snapUp(width, style), notch.shape.top_width_mm) };
    act({ kind: "operation", index, value: { ...notch, depth_mm: snapUp(depth, style), shape } });
    put({ stage: "cut" });
  };
  return (
    <Group title="Notch needed">
      {cut.length === 0 && <Text fontSize="14px">None: the tube stays clear of both rails at full bump.</Text>}
      {cut.map((n) => (
        <Box key={n.side} mb="1" fontSize="14px">
          <Text>
            <b>{n.side}</b>: {length(n.depth_mm)} deep, {length(n.width_mm)} wide at the underside
          </Text>
          <Text color="faint" fontSize="13px">
            tube top {length(n.tube_top_mm)} above the underside at full bump; {length(n.clear_depth_mm)} clear, the
            rest is liner and weld. With one wheel in bump only {length(n.one_wheel_top_mm)}.
          </Text>
        </Box>
      ))}
      {cut.length > 0 && pipe && (
        <Text fontSize="13px" color="faint" mb="1" title={pipe.basis}>
          {pipe.name} {length(pipe.value)}.
        </Text>
      )}
      {cut.length > 0 && own && (
        <Act main onClick={() => use(own.notch, own.index)}>
          Cut it so: {length(snapUp(depth, style))} deep
        </Act>
      )}
      {cut.length > 0 && !own && may.design && <CutOne />}
      <Text fontSize="13px" color="faint" mt="2">
        The notch lowers nothing; it lets the axle come up so far.
      </Text>
    </Group>
  );
}
