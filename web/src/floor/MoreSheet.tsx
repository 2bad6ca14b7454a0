import { Flex, Text } from "@chakra-ui/react";
import { useState } from "react";
import { useMay } from "../app/session";
import { Big, Line, Over } from "./Big";
import { Joints } from "./Joints";
import { Photo } from "./Photo";
import { Readings } from "./Readings";
import { named } from "./SignSheet";
import type { FloorAct, FloorStep } from "./types";
import type { Floor } from "./useFloor";

export type What = "readings" | "joints" | "photo" | "note" | "rework" | "left-off" | "stop" | "go-on" | "pass";

const ASKS: Record<
  Exclude<What, "photo" | "rework" | "readings" | "joints">,
  { title: string; label: string; button: string; must: boolean }
> = {
  note: { title: "Note on this step", label: "One line", button: "Keep the note", must: true },
  "left-off": {
    title: "End of the session",
    label: "What the next one has to know",
    button: "Left off here",
    must: false,
  },
  stop: { title: "Stop the job", label: "Why", button: "Stop: nobody signs", must: true },
  "go-on": { title: "Let it go on", label: "Why it may", button: "It goes on", must: true },
  pass: { title: "Pass it unsigned", label: "Because", button: "Pass and log the reason", must: true },
};

/** What is written on a step beside signing it. */
export function MoreSheet(props: { floor: Floor; step: FloorStep; what: What; close: () => void }) {
  const { floor, step, what, close } = props;
  const [text, setText] = useState("");
  if (what === "photo") {
    return (
      <Over title={`Photo: ${named(step)}`} close={close}>
        <Photo
          keep={(picture, words) => {
            void floor.photo(step.id, picture, words, `Photo: ${named(step)}`);
            close();
          }}
        />
      </Over>
    );
  }
  if (what === "readings") return <Readings floor={floor} close={close} />;
  if (what === "joints") return <Joints floor={floor} of={step.operation} close={close} />;
  if (what === "rework") return <Again floor={floor} step={step} close={close} />;
  const asks = ASKS[what];
  const send = () => {
    void floor.write(actOf(what, step.id, text.trim()), `${asks.title}: ${text.trim() || named(step)}`);
    close();
  };
  return (
    <Over title={asks.title} close={close}>
      {what === "stop" && (
        <Text fontSize="20px">Whoever sees a danger stops. What is open stays as it is, on its stands and braces.</Text>
      )}
      <Line label={asks.label} value={text} take={setText} />
      <Big kind={what === "stop" ? "stop" : "main"} off={asks.must && !text.trim()} onClick={send}>
        {asks.button}
      </Big>
    </Over>
  );
}

function actOf(what: keyof typeof ASKS, step: string, text: string): FloorAct {
  switch (what) {
    case "note":
      return { kind: "note", step, text };
    case "left-off":
      return { kind: "left-off", step, text };
    case "stop":
      return { kind: "stop", step, reason: text };
    case "go-on":
      return { kind: "go-on", reason: text };
    case "pass":
      return { kind: "pass", step, reason: text };
  }
}

type Cause = Extract<FloorAct, { kind: "rework" }>["cause"];

/** A step that is done again: why, and how long that took; later estimates know of it. */
function Again({ floor, step, close }: { floor: Floor; step: FloorStep; close: () => void }) {
  const [cause, setCause] = useState<Cause | null>(null);
  const [minutes, setMinutes] = useState(15);
  const [text, setText] = useState("");
  const send = () => {
    if (!cause) return;
    void floor.write(
      { kind: "rework", step: step.id, cause, minutes, text: text.trim() },
      `Done again: ${named(step)}`,
    );
    close();
  };
  return (
    <Over title={`Done again: ${named(step)}`} close={close}>
      <Flex gap="2" wrap="wrap" role="group" aria-label="Why">
        {(floor.sheet.causes as Cause[]).map((c) => (
          <Big key={c} pressed={c === cause} onClick={() => setCause(c)}>
            {c === cause ? `✓ ${c}` : c}
          </Big>
        ))}
      </Flex>
      <Text fontSize="20px" aria-live="polite">
        It took {minutes} minutes more
      </Text>
      <Flex gap="2">
        {[-5, 5, 15, 60].map((more) => (
          <Big key={more} grow onClick={() => setMinutes(Math.max(5, minutes + more))}>
            {more > 0 ? `+${more}` : `−${-more}`}
          </Big>
        ))}
      </Flex>
      <Line label="What happened, if it helps the next one" value={text} take={setText} />
      <Big kind="main" off={!cause} onClick={send}>
        Log it
      </Big>
    </Over>
  );
}

/** The ways to write on a step. */
export function Ways({ step, open, end }: { step: FloorStep; open: (what: What) => void; end: () => void }) {
  const may = useMay();
  return (
    <Over title={named(step)} close={end}>
      <Big onClick={() => open("readings")}>Readings</Big>
      <Big onClick={() => open("joints")}>Welds and bolts</Big>
      <Big onClick={() => open("note")}>Note</Big>
      <Big onClick={() => open("rework")}>Done again, and why</Big>
      <Big onClick={() => open("left-off")}>End of the session: left off here</Big>
      {may.decide && <Big onClick={() => open("pass")}>Pass it unsigned, with a reason</Big>}
    </Over>
  );
}
