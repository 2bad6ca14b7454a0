import { Text } from "@chakra-ui/react";
import type { Evaluation } from "../api/types";
import { type StageName, useBench } from "../draft/store";
import { useShown } from "../evaluation/useEvaluation";
import { useSweepChecks } from "../sweep/useSweep";

/** The one thing that brings the open stage on, from what the figures say is missing or worst. */
export function NextThing({ stage }: { stage: StageName }) {
  const words = useShown((s) => (s.result && s.problems.length === 0 ? nextOf(stage, s.result) : ""));
  const swept = useSweepChecks().length > 0;
  const mended = useBench((s) => s.gesture === null);
  const next = stage === "sweep" ? (swept ? "look at what comes nearest" : "sweep the whole motion once") : words;
  if (!next || !mended) return null;
  return (
    <Text fontSize="14px" px="1" pb="1" mb="1" borderBottomWidth="1px" borderColor="rule">
      <b>Next:</b> {next}
    </Text>
  );
}

/** What to do next in a stage, in a few words. */
function nextOf(stage: StageName, result: Evaluation): string {
  switch (stage) {
    case "survey": {
      const missing = result.before_teardown.find((reading) => !reading.taken);
      return missing ? `measure: ${missing.name}` : "everything that teardown destroys is in";
    }
    case "target":
      return (
        worstOf(stage, result) ??
        (result.notch_needed.some((n) => n.depth_mm > 0) ? notchAsked(result) : "go on to the cut")
      );
    case "cut":
      return (
        worstOf(stage, result) ?? (result.parts.length ? "print its patterns" : "add the work that the target asks for")
      );
    case "travel":
      return (
        worstOf(stage, result) ??
        (result.travel.length ? "look through bump, droop and roll" : "say what will hold the axle")
      );
    case "steer":
      return (
        worstOf(stage, result) ??
        (result.travel.some((t) => t.steer) ? "turn it lock to lock" : "say how the front axle steers")
      );
    case "patterns":
      return result.parts.length ? "print 1:1 and measure the bar" : "plan a cut or a plate first";
    case "build": {
      const open = result.steps.find((step) => step.status === "open");
      return open ? open.spec.title : "";
    }
    case "prove": {
      const unread = result.readings.find((reading) => reading.value === null && !reading.spec.extra);
      return unread ? `read: ${unread.spec.name}${unread.side ? `, ${unread.side}` : ""}` : "";
    }
    case "sweep":
      return "";
  }
}

/** The worst group of a stage, as something to mend or to give. */
function worstOf(stage: StageName, result: Evaluation): string | undefined {
  const own = result.groups.filter((group) => group.stage === stage && group.state !== "as-built");
  const fails = own.find((group) => group.verdict === "fails");
  if (fails) return `mend: ${fails.title}`;
  const waits = own.find((group) => group.verdict === "not computed");
  return waits ? `give what is missing: ${waits.title}` : undefined;
}

const notchAsked = (result: Evaluation): string =>
  result.parts.some((part) => part.role === "liner") ? "go on to the cut" : "cut the notch that the travel asks for";
