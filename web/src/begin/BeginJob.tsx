import { Box, Button, Flex, Heading, Text } from "@chakra-ui/react";
import { useQueryClient } from "@tanstack/react-query";
import { type FormEvent, type KeyboardEvent, useState } from "react";
import { useNavigate } from "react-router";
import { api, got, postText, Refused } from "../api/client";
import type { components } from "../api/schema";
import type { JobHead, JobRow, Problem, Style } from "../api/types";
import { TroubleList } from "../app/TroubleList";
import { useBench } from "../draft/store";
import { PlainChoice } from "../fields/controls";
import { InTheWay } from "../fields/InTheWay";
import { PlainQuantity, PlainWords } from "../fields/plain";
import { TypedBefore } from "../fields/TypedBefore";
import { useFile } from "../fields/useFile";
import { STYLES } from "../units/styles";
import { SixReadings } from "./SixReadings";

type Start = components["schemas"]["Start"];

const AXLES = [
  ["rear", "rear"],
  ["front", "front"],
  ["both", "both"],
] as const;
const BYS = [
  ["not said", "not decided yet"],
  ["springs", "shorter or softer springs"],
  ["blocks", "blocks"],
  ["spring-flip", "a spring flip"],
  ["air", "air springs"],
  ["z-step", "a Z-step in the rails"],
  ["raise", "the subframe raised into the rails"],
] as const;
const KINDS = [
  ["channel", "open channel"],
  ["rect-tube", "closed box"],
] as const;
/** The readings, in the order of the drawing's letters. */
const READINGS = [
  ["rail_height_mm", "A  Rail height", "length", false],
  ["rail_width_mm", "B  Rail width", "length", false],
  ["wall_mm", "C  Wall", "thickness", false],
  ["tube_diameter_mm", "D  Axle tube, diameter", "length", true],
  ["tube_gap_mm", "E  Tube to rail, standing", "length", true],
] as const;

/** What is wrong with these stands at their fields. */
const SHOWN = /^\/(name|vehicle|start\/(vehicle|drop_mm|rail_height_mm|rail_width_mm|wall_mm|tube_\w+_mm))$/;

/** A new job: a short choice and six readings to a first answer, or only a name; or one brought in from its file. */
export function BeginJob({ templates }: { templates: readonly JobRow[] }) {
  const go = useNavigate();
  const queries = useQueryClient();
  const style = useBench((s) => s.style);
  const put = useBench((s) => s.put);
  const [name, setName] = useState("");
  const [like, setLike] = useState("");
  const [start, setStart] = useState<Start>({
    vehicle: "",
    axle: "rear",
    by: "not said",
    kind: "channel",
    in_the_way: [],
  });
  const [busy, setBusy] = useState(false);
  const [problems, setProblems] = useState<Problem[]>([]);
  const say = (part: Partial<Start>) => {
    setProblems([]);
    setStart((old) => ({ ...old, ...part }));
  };
  const opened = async (make: () => Promise<JobHead>) => {
    setBusy(true);
    try {
      const job = await make();
      await queries.invalidateQueries({ queryKey: ["jobs"] });
      go(`/jobs/${job.id}`);
    } catch (error) {
      setProblems(asProblems(error));
    }
    setBusy(false);
  };
  const at = (pointer: string) => problems.find((p) => p.pointer === pointer);
  const begin = (event: FormEvent<HTMLFormElement>) => {
    event.preventDefault();
    // a reading that could not be read is not left out in silence
    const unread = event.currentTarget.querySelector<HTMLElement>("[data-unread]");
    if (unread) return unread.focus();
    setProblems([]);
    // the newest readings: those of the last field are taken in when it is left
    setStart((newest) => {
      void opened(() =>
        got(
          like
            ? api.POST("/api/jobs/{job_id}/like", {
                params: { path: { job_id: Number(like) } },
                body: { name, vehicle: newest.vehicle },
              })
            : api.POST("/api/jobs", { body: { name, style, start: newest } }),
        ),
      );
      return newest;
    });
  };
  const file = useFile("Job file", ".json,.zip,application/json,application/zip", (chosen) => {
    void opened(() => postText<JobHead>("/api/jobs/import", chosen));
  });
  return (
    <Box mt="6" p="4" bg="panel" borderWidth="1px" borderColor="rule">
      <form onSubmit={(event) => void begin(event)} onKeyDown={nextOnEnter}>
        <Heading as="h2" fontSize="19px" mb="2">
          Begin a job
        </Heading>
        <Box display="grid" gridTemplateColumns={{ base: "1fr", sm: "1fr 1fr 9rem" }} gap="3">
          <PlainWords label="New job" value={name} take={setName} problem={at("/name")} />
          <PlainWords
            label="Vehicle"
            value={start.vehicle}
            take={(vehicle) => say({ vehicle })}
            problem={at("/start/vehicle") ?? at("/vehicle")}
          />
          <PlainChoice label="Tape" value={style} choices={STYLES} choose={(next) => put({ style: next as Style })} />
          {templates.length > 0 && (
            <PlainChoice
              label="Begin"
              value={like}
              choices={[["", "from six readings"], ...templates.map((t) => [String(t.id), `like ${t.name}`] as const)]}
              choose={setLike}
            />
          )}
        </Box>
        {like ? (
          <Text fontSize="14px" color="faint" mt="3">
            Its sizes and plans stand there in slanted ink, each as assumed until you have measured it on this vehicle.
          </Text>
        ) : (
          <Readings start={start} say={say} at={at} />
        )}
        <Flex gap="3" mt="3" wrap="wrap">
          <Button type="submit" bg="chalk" color="onchalk" loading={busy}>
            Begin
          </Button>
          <Button variant="outline" borderColor="rule" onClick={file.ask}>
            Bring in a job file
          </Button>
          {file.input}
        </Flex>
      </form>
      <TroubleList problems={problems.filter((p) => !SHOWN.test(p.pointer))} lead="Nothing was written." />
    </Box>
  );
}

/** Enter takes a reading, as everywhere, and goes on to the next field: it begins nothing half-filled. */
function nextOnEnter(event: KeyboardEvent<HTMLFormElement>) {
  const own = event.target as HTMLElement;
  if (event.key !== "Enter" || own.tagName !== "INPUT") return;
  event.preventDefault();
  const fields = [
    ...event.currentTarget.querySelectorAll<HTMLElement>("input:not([type=file]), select, [type=submit]"),
  ];
  fields[fields.indexOf(own) + 1]?.focus();
}

type ReadingsProps = {
  start: Start;
  say: (part: Partial<Start>) => void;
  at: (pointer: string) => Problem | undefined;
};

/** The short choice and the readings themselves. */
function Readings({ start, say, at }: ReadingsProps) {
  const { by } = start;
  return (
    <>
      <Box display="grid" gridTemplateColumns={{ base: "1fr", sm: "1fr 1fr 9rem" }} gap="3" mt="3">
        <PlainChoice
          label="Work on the axle"
          value={start.axle}
          choices={AXLES}
          choose={(axle) => say({ axle: axle as Start["axle"] })}
        />
        <PlainChoice label="Lowered by" value={by} choices={BYS} choose={(next) => say({ by: next as Start["by"] })} />
        <PlainChoice
          label="Rail"
          value={start.kind}
          choices={KINDS}
          choose={(kind) => say({ kind: kind as Start["kind"] })}
        />
      </Box>
      <InTheWay things={start.in_the_way} take={(in_the_way) => say({ in_the_way })} />
      <Text fontSize="14px" color="faint" mt="3" mb="1">
        Six readings to a first answer. What you have not measured may stay empty: a usual size stands there then, in
        slanted ink, until you type it.
      </Text>
      <Flex gap="4" wrap="wrap" align="start">
        <Box flex="1 1 300px" maxW="420px">
          <SixReadings by={by} />
        </Box>
        <Box flex="1 1 260px" display="grid" gridTemplateColumns="1fr 1fr" gap="2" alignItems="start">
          <TypedBefore kinds={["rail"]} label="A rail from another job" take={say} />
          <TypedBefore kinds={["axle"]} label="An axle from another job" take={say} />
          <PlainQuantity
            label="Wanted drop"
            value={start.drop_mm ?? null}
            take={(drop_mm) => say({ drop_mm })}
            problem={at("/start/drop_mm")}
          />
          {READINGS.filter((r) => !(r[3] && (by === "z-step" || by === "raise"))).map(([field, label, kind]) => (
            <PlainQuantity
              key={field}
              label={label}
              kind={kind}
              value={start[field] ?? null}
              take={(value) => say({ [field]: value })}
              problem={at(`/start/${field}`)}
            />
          ))}
        </Box>
      </Flex>
    </>
  );
}

function asProblems(error: unknown): Problem[] {
  const message = error instanceof Error ? error.message : "that did not work";
  if (error instanceof Refused && error.problems.length) return error.problems;
  return [{ pointer: "", message, found: "", expected: "" }];
}
