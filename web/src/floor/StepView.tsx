import { Box, Flex, Text } from "@chakra-ui/react";
import type { ReactNode } from "react";
import { Beads } from "./Beads";
import { Drawing } from "./Drawing";
import { Gate } from "./Gate";
import type { FloorStep } from "./types";
import type { Floor } from "./useFloor";

/** One step: what to do, its numbers, its drawing, what to heed. */
export function StepView({ floor, step, number }: { floor: Floor; step: FloorStep; number: number }) {
  const { sheet } = floor;
  const picture = sheet.pictures.find((p) => p.operation === step.operation);
  const waits = sheet.steps.filter((s) => step.needs.includes(s.id) && (s.status === "open" || s.status === "waiting"));
  return (
    <Flex as="article" direction="column" gap="3" aria-label={step.title}>
      <Box>
        <Text fontSize="20px" color="faint">
          {number} of {sheet.steps.length}
          {step.work && `, ${step.work}`}
        </Text>
        <Text as="h1" fontFamily="heading" fontSize="34px" lineHeight="1.05" fontWeight="600">
          {step.title}
          {step.side && <SideMark side={step.side} />}
        </Text>
      </Box>
      {step.place && (
        <Text fontSize="22px" fontWeight="600" lineHeight="1.2">
          {step.place}
        </Text>
      )}
      {step.figures.length > 0 && (
        <Box as="dl" display="grid" gap="2" gridTemplateColumns="repeat(auto-fit, minmax(150px, 1fr))">
          {step.figures.map((f) => (
            <Box key={f.name} borderWidth="1px" borderColor="rule" bg="sheet" px="2" py="1">
              <Text as="dt" fontSize="20px" lineHeight="1.1" color="faint">
                {f.name}
              </Text>
              <Text as="dd" fontSize={f.value.length > 14 ? "22px" : "30px"} lineHeight="1.15" fontWeight="600">
                {f.value}
              </Text>
            </Box>
          ))}
        </Box>
      )}
      {step.welds ? (
        <Beads key={step.id} floor={floor} step={step} />
      ) : (
        picture && <Drawing picture={picture} step={step} />
      )}
      <Text fontSize="20px" lineHeight="1.3">
        {step.detail}
      </Text>
      <Gate floor={floor} step={step} />
      {step.cautions.map((caution) => (
        <Bar key={caution} colour="removed">
          {caution}
        </Bar>
      ))}
      {step.gauges.map((gauge) => (
        <Box as="details" key={gauge.name} fontSize="20px" bg="sheet" p="2" borderWidth="1px" borderColor="rule">
          <summary>
            {gauge.name}: <b>{gauge.size}</b>
          </summary>
          {gauge.says}
        </Box>
      ))}
      {step.along.map((words) => (
        <Text key={words} fontSize="20px">
          <b>Takes along:</b> {words}.
        </Text>
      ))}
      <Text fontSize="20px" color="faint">
        {takes(step)}
        {step.tools.length > 0 && `. Tools: ${step.tools.join(", ")}`}.
      </Text>
      {step.meanwhile && <Bar colour="removed">Until it is welded: {step.meanwhile}</Bar>}
      {step.hides && (
        <Bar colour="touch">
          Afterwards out of reach: <b>{step.hides}</b>.
        </Bar>
      )}
      {step.undo && <Text fontSize="20px">Can be undone: {step.undo}.</Text>}
      {step.hold && <Bar colour="chalk">Hold point: {step.hold}</Bar>}
      {step.status === "waiting" && (
        <Bar colour="touch">
          Not open yet{step.shut && `: ${step.shut}`}
          {waits.length > 0 && ". Waits for: "}
          {waits
            .slice(0, 3)
            .map((s) => (s.side ? `${s.title}, ${s.side}` : s.title))
            .join("; ")}
          {waits.length > 3 && ` and ${waits.length - 3} more`}.
        </Bar>
      )}
      {step.signed_by && (
        <Text fontSize="20px">
          {step.reason ? "Passed" : "Signed"} by <b>{step.signed_by}</b>,{" "}
          {step.signed_at.replace("T", " ").slice(0, 16)}
          {step.reason && `: ${step.reason}`}
        </Text>
      )}
      <Kept floor={floor} step={step} />
    </Flex>
  );
}

/** What a step is said to take, and what it took here before. */
export function takes(step: FloorStep): string {
  const { minutes, low, high, steps } = step.takes;
  const people = step.people === 1 ? "one person" : `${step.people} people`;
  const known = steps > 0 ? ` (${low} to ${high}, from ${steps} timed here)` : "";
  return `About ${minutes} minutes${known}, ${people}`;
}

/** Left and right told apart by word and by place: the mark stands on the side that is meant. */
export function SideMark({ side }: { side: string }) {
  return (
    <Flex as="span" justify={side === "right" ? "flex-end" : side === "left" ? "flex-start" : "center"} mt="1">
      <Box
        as="span"
        fontFamily="body"
        fontSize="20px"
        px="3"
        py="1"
        borderWidth="2px"
        borderColor="ink"
        textTransform="uppercase"
      >
        {side === "both" ? "both rails" : `${side} rail`}
      </Box>
    </Flex>
  );
}

export function Bar({ colour, children }: { colour: string; children: ReactNode }) {
  return (
    <Text fontSize="20px" lineHeight="1.25" p="2" bg="sheet" borderLeftWidth="6px" borderColor={colour}>
      {children}
    </Text>
  );
}

/** Notes and photos of this step. */
function Kept({ floor, step }: { floor: Floor; step: FloorStep }) {
  const own = floor.sheet.log.filter((e) => "step" in e && e.step === step.id);
  return (
    <>
      {own.map((e) => (
        <Box key={e.number} fontSize="20px">
          {e.kind === "photo" && (
            <img
              src={`/api/jobs/${floor.jobId}/photos/${e.sha256}`}
              alt={e.text || `Photo of ${step.title}`}
              loading="lazy"
              style={{ width: "100%" }}
            />
          )}
          {e.kind === "note" && `Note: ${e.text}`}
          {e.kind === "photo" && e.text}
          {e.kind === "rework" && `Done again, ${e.minutes} minutes: ${e.cause}${e.text ? `, ${e.text}` : ""}`}
          <Text as="span" color="faint">
            {" "}
            {e.by}, {(e.done_at || e.at).replace("T", " ").slice(0, 16)}
          </Text>
        </Box>
      ))}
    </>
  );
}
