import { Box, Spinner, VisuallyHidden } from "@chakra-ui/react";
import { Suspense } from "react";
import { useShallow } from "zustand/react/shallow";
import type { Check, Evaluation, JobHead } from "../api/types";
import { STAGES, type StageName, useBench } from "../draft/store";
import { useShown } from "../evaluation/useEvaluation";
import { FieldHelp } from "../help/FieldHelp";
import { count, grouped, worst } from "../margins/group";
import { VerdictMark } from "../margins/VerdictMark";
import { useSweepChecks } from "../sweep/useSweep";
import { ahead } from "./ahead";
import { NextThing } from "./NextThing";
import { TITLES } from "./titles";

const PANELS = {
  survey: ahead(() => import("../survey/SurveyPanel")),
  target: ahead(() => import("../target/TargetPanel")),
  cut: ahead(() => import("../cut/CutPanel")),
  travel: ahead(() => import("../travel/TravelPanel")),
  steer: ahead(() => import("../steer/SteerPanel")),
  sweep: ahead(() => import("../sweep/SweepPanel")),
  patterns: ahead(() => import("../patterns/PatternPanel")),
  build: ahead(() => import("../build/BuildPanel")),
  prove: ahead(() => import("../prove/ProvePanel")),
};

/** The stages in the order of the work, all in sight; the open one has the rest of the height. */
export function StageList({ job }: { job: JobHead }) {
  const stage = useBench((s) => s.stage);
  const Panel = PANELS[stage];
  return (
    <>
      <div className="stage-grid">
        {STAGES.map((name, i) => (
          <StageHead key={name} name={name} number={i + 1} open={name === stage} />
        ))}
      </div>
      <Box
        flex="1"
        minH="0"
        overflowY="auto"
        px="3"
        pt="2"
        pb="28"
        scrollPaddingBottom="28"
        aria-label={TITLES[stage]}
        as="section"
        tabIndex={0}
      >
        <VisuallyHidden>
          <h2>{TITLES[stage]}</h2>
        </VisuallyHidden>
        <NextThing stage={stage} />
        <Suspense fallback={<Spinner />}>
          <Panel job={job} />
        </Suspense>
      </Box>
      <FieldHelp />
    </>
  );
}

/** A stage's name and state; it alone follows the evaluation, the panel below does not. */
function StageHead({ name, number, open }: { name: StageName; number: number; open: boolean }) {
  const put = useBench((s) => s.put);
  const own = useShown(useShallow((s) => (s.result ? stateOf(name, s.result) : null)));
  const sweep = useSweepState();
  const state = name === "sweep" ? sweep : own;
  return (
    <button
      type="button"
      className="stage-head"
      aria-expanded={open}
      title={state?.words}
      onClick={() => put({ stage: name })}
    >
      <span className="stage-name">
        <span>{number}</span> {TITLES[name]}
      </span>
      {state?.verdict && !open && <VerdictMark verdict={state.verdict} size={12} />}
      {state && <span className="stage-state">{state.words}</span>}
    </button>
  );
}

/** The sweep is worked out when it is asked for: its state is that of the last one while it still holds. */
function useSweepState() {
  const checks = useSweepChecks();
  if (checks.length === 0) return { words: "not swept", verdict: null };
  const fails = count(grouped(checks), "fails");
  return { words: fails ? `${fails} fail` : (worst(checks) ?? ""), verdict: worst(checks) };
}

type Judged = { checks: Check[]; fails: number };
const judgedBefore = new WeakMap<Check[], Map<StageName, Judged>>();

/** A stage's checks and how many rows of them fail; the same list is not counted twice. */
function judged(name: StageName, all: Check[]): Judged {
  const known = judgedBefore.get(all) ?? new Map<StageName, Judged>();
  judgedBefore.set(all, known);
  const old = known.get(name);
  if (old) return old;
  const checks = all.filter((c) => c.stage === name && c.state !== "as-built");
  const found = { checks, fails: count(grouped(checks), "fails") };
  known.set(name, found);
  return found;
}

/** A stage's state in words, with the worst verdict of its checks. */
function stateOf(name: StageName, result: Evaluation) {
  const { checks, fails } = judged(name, result.checks);
  switch (name) {
    case "survey": {
      const taken = result.before_teardown.filter((r) => r.taken).length;
      return { words: `${taken} of ${result.before_teardown.length} taken`, verdict: worst(checks) };
    }
    case "travel": {
      if (result.travel.length === 0) return { words: "stock", verdict: null };
      return { words: fails ? `${fails} fail` : (worst(checks) ?? ""), verdict: worst(checks) };
    }
    case "sweep":
      return { words: "", verdict: null };
    case "steer": {
      if (!result.travel.some((t) => t.steer)) return { words: "not given", verdict: null };
      return { words: fails ? `${fails} fail` : (worst(checks) ?? ""), verdict: worst(checks) };
    }
    case "patterns": {
      // a length of tube is sawn, not cut from plate: it has no pattern
      const flat = result.parts.filter((part) => part.role !== "tube").length;
      return { words: flat ? `${flat} plates` : "no plates yet", verdict: null };
    }
    case "build": {
      const done = result.steps.filter((s) => s.status === "done" || s.status === "overridden").length;
      return { words: `${done} of ${result.steps.length} steps`, verdict: checks.length ? worst(checks) : null };
    }
    case "prove": {
      const asked = result.readings.filter((r) => r.value !== null || !r.spec.extra);
      const taken = asked.filter((r) => r.value !== null).length;
      const built = result.checks.filter((c) => c.state === "as-built");
      return { words: `${taken} of ${asked.length} read`, verdict: worst(built) };
    }
    default:
      return { words: fails ? `${fails} fail` : (worst(checks) ?? ""), verdict: worst(checks) };
  }
}
