import { Box } from "@chakra-ui/react";
import { useState } from "react";
import { api, got } from "../api/client";
import type { TapedReadings } from "../api/types";
import { useMay } from "../app/session";
import { messageOf } from "../cut/useSearch";
import { askedOfDraft } from "../draft/asked";
import type { Path } from "../draft/document";
import { shownDraft, useBench } from "../draft/store";
import { Act, PlainChoice } from "../fields/controls";
import { PlainQuantity } from "../fields/plain";
import { useAxlePart } from "./useAxle";

type Choices = readonly (readonly [string, string])[];
type Part = { of: string; mm: number | null };
const UP: Choices = [
  ["datum", "the datum plane"],
  ["floor", "the floor"],
  ["rail-underside", "the rail's underside"],
  ["rail-top", "the rail's top"],
];
const ACROSS: Choices = [
  ["centre", "the centre plane"],
  ["rail-outer", "the rail's outer face"],
  ["rail-inner", "the rail's inner face"],
];

/** A point as it is measured: by tape from what is at hand, or by a length and angles from another joint. */
export function Taped({ label, path, on }: { label: string; path: Path; on: "frame" | "axle" }) {
  const may = useMay();
  const [open, setOpen] = useState(false);
  if (!may.design || path[1] !== "suspensions") return null;
  return (
    <Box mt="1">
      <Act onClick={() => setOpen(!open)}>{open ? "Not by tape" : "By tape or angle"}</Act>
      {open && <Readings label={label} path={path} on={on} done={() => setOpen(false)} />}
    </Box>
  );
}

function Readings({ label, path, on, done }: { label: string; path: Path; on: "frame" | "axle"; done: () => void }) {
  const features = useBench((s) => shownDraft(s).survey.features);
  const grips = useAxlePart("grips") ?? [];
  const axle = useAxlePart("axle") ?? "rear";
  const [root, , index, ...rest] = path;
  const own = rest.join(".");
  const joints: Choices = grips
    .map((g) => [g.path.split(".").slice(2).join("."), g.name] as const)
    .filter(([at]) => at !== own)
    .map(([at, name]) => [`point:${at}`, name] as const);
  const stations: Choices = [
    ["hub:front", "front hubs"],
    ["hub:rear", "rear hubs"],
    ...features.map((f) => [`feature:${f.id}`, f.name] as const),
    ...joints,
  ];
  const [how, setHow] = useState<"tape" | "angle">("tape");
  const [along, setAlong] = useState<Part>({ of: `hub:${axle}`, mm: null });
  const [up, setUp] = useState<Part>({ of: "rail-underside", mm: null });
  const [across, setAcross] = useState<Part>({ of: "centre", mm: null });
  const [joint, setJoint] = useState({ of: joints[0]?.[0] ?? "", length: null as number | null, fall: 0, plan: 0 });
  const [trouble, setTrouble] = useState("");
  const put = async () => {
    setTrouble("");
    const told = (part: Part) => (part.mm === null ? null : { of: part.of, mm: part.mm });
    const taped: TapedReadings =
      how === "tape"
        ? { along: told(along), up: told(up), across: told(across) }
        : {
            joint: {
              point: joint.of.replace("point:", ""),
              length_mm: joint.length ?? 0,
              fall_deg: joint.fall,
              plan_deg: joint.plan,
            },
          };
    try {
      const value = await askedOfDraft((draft) =>
        got(
          api.POST("/api/points/taped", {
            body: { ...draft, suspension: Number(index), path: own, on, taped, before: root === "survey" },
          }),
        ),
      );
      useBench.getState().act({ kind: "set", path, value });
      done();
    } catch (error) {
      setTrouble(messageOf(error));
    }
  };
  return (
    <Box role="group" aria-label={`${label}, measured`} p="2" bg="sheet">
      <PlainChoice
        label="Measured"
        value={how}
        choices={[
          ["tape", "by tape"],
          ["angle", "length and angles from a joint"],
        ]}
        choose={(v) => setHow(v === "angle" ? "angle" : "tape")}
      />
      {how === "tape" ? (
        <>
          <Row label="Behind" part={along} set={setAlong} choices={stations} />
          <Row label="Above" part={up} set={setUp} choices={[...UP, ...joints]} />
          <Row label={outward(across.of)} part={across} set={setAcross} choices={[...ACROSS, ...joints]} />
          <p className="small-words">What is left empty stays as it is.</p>
        </>
      ) : (
        <>
          <PlainChoice label="From" value={joint.of} choices={joints} choose={(of) => setJoint({ ...joint, of })} />
          <PlainQuantity label="Length" value={joint.length} take={(length) => setJoint({ ...joint, length })} />
          <PlainQuantity
            label="Falls from there by"
            value={joint.fall}
            take={(fall) => setJoint({ ...joint, fall })}
            kind="angle"
          />
          <PlainQuantity
            label="Outward of straight back, in plan"
            value={joint.plan}
            take={(plan) => setJoint({ ...joint, plan })}
            kind="angle"
          />
        </>
      )}
      {trouble && <p role="alert">{trouble}</p>}
      <Act main onClick={() => void put()}>
        Put the point there
      </Act>
    </Box>
  );
}

const outward = (of: string) => (of.startsWith("rail") ? "Outward of" : "To the right of");

function Row({
  label,
  part,
  set,
  choices,
}: {
  label: string;
  part: Part;
  set: (part: Part) => void;
  choices: Choices;
}) {
  return (
    <Box display="grid" gridTemplateColumns="1fr 1.3fr" gap="2" alignItems="end">
      <PlainQuantity label={label} value={part.mm} take={(mm) => set({ ...part, mm })} />
      <PlainChoice label="of" value={part.of} choices={choices} choose={(of) => set({ ...part, of })} />
    </Box>
  );
}
