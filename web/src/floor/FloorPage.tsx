import "./floor.css";
import { Box, Flex, Text } from "@chakra-ui/react";
import { useEffect, useState } from "react";
import { Link, useSearchParams } from "react-router";
import { useMay } from "../app/session";
import { held, isDone } from "./after";
import { Big } from "./Big";
import { holdTimer, startTimer, useTimers } from "./clock";
import { MoreSheet, Ways, type What } from "./MoreSheet";
import { Queued, useUnsent } from "./Queued";
import { named, SignSheet } from "./SignSheet";
import { StepPicker } from "./StepPicker";
import { Bar, StepView } from "./StepView";
import { Timers } from "./Timers";
import type { FloorStep } from "./types";
import { type Floor, useFloor } from "./useFloor";

/** The floor: one step at a time, for one hand in a glove. */
export default function FloorPage() {
  const { floor, trouble } = useFloor();
  useEffect(() => {
    if (floor) document.title = `${floor.name}, floor`;
  }, [floor]);
  if (!floor)
    return (
      <Text p="6" fontSize="20px">
        {trouble || "Opening the floor"}
      </Text>
    );
  return <Shown floor={floor} />;
}

/** Where one begins: the step that the address names, else where one left off, else the first that is open, else what holds the rest up. */
function first(floor: Floor, asked: string | null): FloorStep | undefined {
  const { steps, left_off } = floor.sheet;
  const open = steps.find((s) => s.status === "open");
  const left = steps.find((s) => s.id === left_off?.step && s.status === "open");
  return steps.find((s) => s.id === asked) ?? left ?? open ?? held(steps) ?? steps.at(-1);
}

function Shown({ floor }: { floor: Floor }) {
  const { sheet } = floor;
  const [search, setSearch] = useSearchParams();
  const [over, setOver] = useState<What | "sign" | "ways" | "all" | "queue" | null>(null);
  const asked = search.get("step");
  const step = first(floor, asked);
  const show = (id: string) => {
    search.set("step", id);
    setSearch(search, { replace: true });
    setOver(null);
    scrollTo(0, 0);
  };
  if (!step)
    return (
      <Text p="6" fontSize="20px">
        No steps yet: the design makes them.
      </Text>
    );
  const number = sheet.steps.indexOf(step) + 1;
  const close = () => setOver(null);
  const next =
    sheet.steps.find((s, k) => s.status === "open" && s.id !== step.id && k >= number) ??
    sheet.steps.find((s) => s.status === "open" && s.id !== step.id) ??
    held(sheet.steps, step.id);
  return (
    <Box className="floor" maxW="46rem" mx="auto">
      <Head floor={floor} open={setOver} />
      <Flex as="main" direction="column" gap="3" p="3" pb="32">
        {sheet.stop && (
          <Bar colour="removed">
            <b>The job is stopped:</b> {sheet.stop.reason} ({sheet.stop.by}). Nothing is signed until it goes on.
          </Bar>
        )}
        {sheet.standing && <Now words={sheet.standing} />}
        <Timers floor={floor} step={step} />
        {sheet.left_off && !isDone(step) && sheet.left_off.step === step.id && (
          <Bar colour="chalk">
            <b>Left off here</b> by {sheet.left_off.by}, {sheet.left_off.at.replace("T", " ").slice(0, 16)}
            {sheet.left_off.text && `: ${sheet.left_off.text}`}
          </Bar>
        )}
        <StepView floor={floor} step={step} number={number} />
        {sheet.next_session && (
          <Text fontSize="20px" color="faint">
            For the next session: {sheet.next_session}.
          </Text>
        )}
        <Text fontSize="20px" color="faint" lineHeight="1.25">
          {sheet.cautions}
        </Text>
      </Flex>
      <Foot floor={floor} step={step} next={next} open={setOver} show={show} />
      {over === "sign" && <SignSheet floor={floor} step={step} close={close} />}
      {over === "ways" && <Ways step={step} open={setOver} end={close} />}
      {over === "all" && <StepPicker steps={sheet.steps} now={step.id} show={show} close={close} />}
      {over === "queue" && <Queued floor={floor} close={close} />}
      {over && !["sign", "ways", "all", "queue"].includes(over) && (
        <MoreSheet floor={floor} step={step} what={over as What} close={close} />
      )}
    </Box>
  );
}

/** What is open now, in a line; touched, what may not be done meanwhile. */
function Now({ words }: { words: string }) {
  const [head, ...rest] = words.split(": ");
  return (
    <Box
      as="details"
      className="floor-now"
      fontSize="20px"
      lineHeight="1.25"
      p="2"
      bg="sheet"
      borderLeftWidth="6px"
      borderColor="removed"
    >
      <summary>Now: {head}</summary>
      {rest.join(": ")}
    </Box>
  );
}

type Open = (over: What | "sign" | "ways" | "all" | "queue") => void;

function Head({ floor, open }: { floor: Floor; open: Open }) {
  const unsent = useUnsent();
  const may = useMay();
  return (
    <Flex
      as="header"
      position="sticky"
      top="0"
      zIndex="5"
      bg="panel"
      borderBottomWidth="2px"
      borderColor="rule"
      px="3"
      py="1"
      gap="2"
      align="center"
    >
      <Box flex="1" minW="0" lineHeight="1.1">
        <Link
          to={`/jobs/${floor.jobId}?option=${floor.optionId}`}
          style={{ textDecoration: "underline", fontSize: 20 }}
        >
          {floor.name}
        </Link>
        <Text fontSize="15px" color="faint" truncate>
          {floor.sheet.option}
        </Text>
      </Box>
      {unsent.words && (
        <Big onClick={() => open("queue")} kind={unsent.refused ? "stop" : "plain"}>
          {unsent.words}
        </Big>
      )}
      <Big onClick={() => open("all")}>All steps</Big>
      {may.log && (
        <Big kind="stop" onClick={() => open(floor.sheet.stop ? "go-on" : "stop")}>
          {floor.sheet.stop ? "Go on" : "Stop"}
        </Big>
      )}
    </Flex>
  );
}

function Foot(props: {
  floor: Floor;
  step: FloorStep;
  next: FloorStep | undefined;
  open: Open;
  show: (id: string) => void;
}) {
  const { floor, step, next, open, show } = props;
  const may = useMay();
  const timer = useTimers().find((t) => t.id === step.id);
  const ready = step.status === "open" && !floor.sheet.stop;
  return (
    <Flex
      as="footer"
      direction="column"
      gap="2"
      position="fixed"
      bottom="0"
      insetInline="0"
      mx="auto"
      maxW="46rem"
      zIndex="5"
      bg="panel"
      borderTopWidth="2px"
      borderColor="rule"
      p="2"
    >
      {may.log && !isDone(step) && (
        <Flex gap="2">
          <Big
            grow
            onClick={() => (timer ? holdTimer(timer.id, !timer.running) : startTimer(step.id, named(step), null))}
          >
            {timer?.running ? "Pause" : timer ? "Go on" : "Start"}
          </Big>
          <Big grow onClick={() => open("photo")}>
            Photo
          </Big>
          <Big grow onClick={() => open("ways")}>
            More
          </Big>
        </Flex>
      )}
      {may.log && ready ? (
        <Big kind="main" onClick={() => open("sign")}>
          {step.reading ? "Read and sign" : "Done"}
        </Big>
      ) : (
        next && (
          <Big kind="main" onClick={() => show(next.id)}>
            Next: {named(next)}
          </Big>
        )
      )}
    </Flex>
  );
}
