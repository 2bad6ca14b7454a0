import { Box, Flex, Heading, Text } from "@chakra-ui/react";
import { useEffect, useState } from "react";
import { Link } from "react-router";
import { api } from "../api/client";
import type { JobHead, Step } from "../api/types";
import { useMay } from "../app/session";
import { saveRevision } from "../draft/autosave";
import { useBench, usePick } from "../draft/store";
import { evaluateAgain, NONE, useShown } from "../evaluation/useEvaluation";
import { Act } from "../fields/controls";
import { PlainQuantity, PlainWords } from "../fields/plain";
import { gaugesOf, useGauges } from "../patterns/useGauges";
import { reasonOf } from "../prove/reason";
import { useInstrument } from "../prove/useInstrument";
import { useLog, useRefreshLog } from "../prove/useLog";
import { showLength } from "../units/show";

/** One step: what to do, with what, what to heed, and its hold point. */
export function StepCard({ job, step, steps }: { job: JobHead; step: Step; steps: readonly Step[] }) {
  const waits = steps.filter((s) => step.needs.includes(s.id) && (s.status === "open" || s.status === "waiting"));
  const { spec } = step;
  return (
    <Box maxW="34rem">
      <Heading fontSize="26px">
        {spec.title}
        {step.side && `, ${step.side}`}
      </Heading>
      <Text fontSize="16px" mt="1">
        {spec.detail}
      </Text>
      <Text fontSize="14px" color="faint" mt="2">
        About {spec.minutes} minutes, {spec.people === 1 ? "one person" : `${spec.people} people`}
        {spec.tools.length > 0 && `. Tools: ${spec.tools.join(", ")}`}.
      </Text>
      <OnTheFloor job={job} step={step} />
      <StepGauges step={step} steps={steps} />
      {spec.hides && (
        <Text fontSize="14px" mt="1">
          Afterwards out of reach: <b>{spec.hides}</b>.
        </Text>
      )}
      <Meanwhile step={step} steps={steps} />
      {spec.undo && step.status !== "done" && (
        <Text fontSize="14px" mt="1">
          {undone(step, steps)}
        </Text>
      )}
      {spec.cautions.map((caution) => (
        <Text key={caution} mt="2" p="2" bg="panel" borderLeftWidth="4px" borderColor="removed" fontSize="14px">
          {caution}
        </Text>
      ))}
      {spec.hold && (
        <Text mt="3" fontWeight="600">
          Hold point: {spec.hold.ask}
        </Text>
      )}
      {step.status === "done" || step.status === "overridden" ? (
        <Text mt="3">
          {step.status === "done" ? "Signed" : "Passed with a reason"} by <b>{step.signed_by}</b>,{" "}
          {step.signed_at.replace("T", " ").slice(0, 16)}
          {step.reason && `: ${step.reason}`}
        </Text>
      ) : (
        <>
          {step.held && (
            <Text mt="3" fontSize="14px">
              Shut: {step.held}.
            </Text>
          )}
          {waits.length > 0 && (
            <Text mt="3" fontSize="14px">
              Waits for:{" "}
              {waits
                .slice(0, 4)
                .map((s) => s.spec.title)
                .join("; ")}
              {waits.length > 4 && ` and ${waits.length - 4} more`}.
            </Text>
          )}
          <Sign job={job} step={step} />
        </>
      )}
    </Box>
  );
}

/** The same step for a phone, and what was noted on it there. */
function OnTheFloor({ job, step }: { job: JobHead; step: Step }) {
  const optionId = useBench((s) => s.optionId);
  const log = useLog(job.id);
  const own = (log.data ?? []).filter((e) => (e.kind === "note" || e.kind === "photo") && e.step === step.id);
  return (
    <Box fontSize="14px" mt="1">
      <Link
        to={`/jobs/${job.id}/floor?option=${optionId}&step=${encodeURIComponent(step.id)}`}
        style={{ textDecoration: "underline" }}
      >
        On the floor: drawing, numbers, photo, timer
      </Link>
      {own.map((e) => (
        <Box key={e.number} mt="1">
          {e.kind === "photo" && (
            <img
              src={`/api/jobs/${job.id}/photos/${e.sha256}`}
              alt={e.text || `Photo of ${step.spec.title}`}
              loading="lazy"
              style={{ maxHeight: 160 }}
            />
          )}
          {(e.kind === "photo" || e.kind === "note") && e.text}{" "}
          <Text as="span" color="faint">
            {e.by}, {(e.done_at || e.at).slice(0, 10)}
          </Text>
        </Box>
      ))}
    </Box>
  );
}

/** What may and may not be done with the frame while its cut is open, and the figure behind it. */
function Meanwhile({ step, steps }: { step: Step; steps: readonly Step[] }) {
  const frames = useShown((s) => s.result?.interim ?? NONE);
  const closed = steps.some((s) => s.operation === step.operation && s.spec.acts?.includes("welds"));
  if (!step.spec.acts?.includes("cuts") || !closed) return null;
  const own = frames.find((f) => f.operation === step.operation && (f.side === step.side || step.side === "both"));
  if (!own) return null;
  return (
    <Text fontSize="14px" mt="2" fontWeight="600">
      Until it is welded: {own.words}
      {own.use != null && ` Rail at ${Math.round(100 * own.use)} % of what it may carry standing.`}
    </Text>
  );
}

/** How a step is undone, and up to which later one. */
function undone(step: Step, steps: readonly Step[]): string {
  const { undo, undo_until } = step.spec;
  const last = steps.find(
    (s) => s.operation === step.operation && s.spec.key === undo_until && (s.side === step.side || s.side === "both"),
  );
  return `Can be undone${last ? ` until '${last.spec.title}'` : ""}: ${undo}.`;
}

/** Gauges that the step asks for. */
function StepGauges({ step, steps }: { step: Step; steps: readonly Step[] }) {
  const { gauges, load } = useGauges();
  const { history } = usePick("history");
  // biome-ignore lint/correctness/useExhaustiveDependencies: gauges follow the draft
  useEffect(() => void load(), [history.now, load]);
  const own = gaugesOf(gauges, step, steps);
  if (own.length === 0) return null;
  return (
    <Box mt="2">
      <Text fontSize="14px" fontWeight="600">
        Gauges to have at hand
      </Text>
      {own.map((gauge) => (
        <Text key={gauge.id} fontSize="14px" mt="1">
          {gauge.count > 1 && `${gauge.count} × `}
          {gauge.name}: {gauge.missing ? `not known: ${gauge.missing}` : gauge.size || "see Patterns"}. {gauge.says}
        </Text>
      ))}
    </Box>
  );
}

function Sign({ job, step }: { job: JobHead; step: Step }) {
  const { optionId, style } = usePick("optionId", "style");
  const may = useMay();
  const refresh = useRefreshLog(job.id);
  // what is done on both sides as one is read once, on the right where it is there
  const planned = useShown((s) =>
    s.result?.readings.findLast(
      (r) =>
        r.operation === step.operation &&
        (step.side === "both" || r.side === step.side) &&
        r.spec.key === step.spec.hold?.reading,
    ),
  );
  const [value, setValue] = useState<{ mm: number; text: string } | null>(null);
  const [note, setNote] = useState("");
  const [reason, setReason] = useState("");
  const [trouble, setTrouble] = useState("");
  const wantsReading = step.spec.hold?.kind === "reading";
  const used = useInstrument(step.spec.hold?.reading?.endsWith("thickness") ? "thickness" : "length");
  if (!may.log) return <Text mt="3">A reader looks; signing is for the people who do the work.</Text>;
  const write = async (call: () => Promise<unknown>) => {
    try {
      if (may.design && !(await saveRevision("before it was signed"))) return;
      await call();
      await refresh();
      setTrouble("");
      evaluateAgain();
    } catch (error) {
      setTrouble(reasonOf(error));
    }
  };
  const sign = () => {
    const reading = value
      ? { value: value.mm, unit: "mm" as const, again: false, text: value.text, ...used.read, note: "" }
      : null;
    const params = { path: { option_id: optionId } };
    return write(() => api.POST("/api/options/{option_id}/sign", { params, body: { step: step.id, reading, note } }));
  };
  const override = () => {
    const params = { path: { job_id: job.id } };
    return write(() => api.POST("/api/jobs/{job_id}/reasons", { params, body: { subject: step.id, reason } }));
  };
  return (
    <Box mt="3">
      {wantsReading && (
        <PlainQuantity
          label={`Reading${planned ? `, planned ${showLength(planned.spec.planned, style)} from ${planned.spec.datum}` : ""}`}
          value={value?.mm ?? null}
          take={(mm, text) => setValue({ mm, text })}
        />
      )}
      <PlainWords label="Note, if any" value={note} take={setNote} />
      <Flex mt="2" gap="2" align="center">
        <Act main off={step.status === "waiting" || (wantsReading && !value)} onClick={() => void sign()}>
          {step.spec.hold ? "Sign the hold point" : "Done, sign"}
        </Act>
      </Flex>
      <Text role="alert" color="removed" fontSize="14px" minH="1.4em">
        {trouble}
      </Text>
      {may.decide && (
        <Box borderTopWidth="1px" borderColor="rule" pt="2">
          <PlainWords label="Pass it unsigned, because" value={reason} take={setReason} />
          <Box mt="1">
            <Act off={!reason.trim()} onClick={() => void override()}>
              Pass and log the reason
            </Act>
          </Box>
        </Box>
      )}
    </Box>
  );
}
