import { Box, Flex, Text } from "@chakra-ui/react";
import { useState } from "react";
import { useMay, useSession } from "../app/session";
import { DYES, PROCESSES } from "../prove/joints";
import { parseTyped } from "../units/parse";
import { Big, Line, Over } from "./Big";
import { Photo } from "./Photo";
import type { FloorAct, FloorSheet } from "./types";
import type { Floor } from "./useFloor";

type Joint = FloorSheet["joints"][number];
type Given = { floor: Floor; joint: Joint; done: () => void };
const EDGES: Record<Joint["state"], string> = { open: "touch", made: "touch", "to repair": "removed", done: "added" };
const titled = (joint: Joint) => (joint.side ? `${joint.name}, ${joint.side}` : joint.name);

/** Welds and bolts as they are made and looked at: by the work, those of the step's own work first. */
export function Joints({ floor, of, close }: { floor: Floor; of: string | null; close: () => void }) {
  const { joints } = floor.sheet;
  const own = joints.find((j) => j.operation === of)?.work ?? null;
  const [work, setWork] = useState<string | null>(own);
  const [joint, setJoint] = useState<Joint | null>(null);
  const [pictured, setPictured] = useState<Joint | null>(null);
  if (pictured) {
    return (
      <Over title={`Photo: ${titled(pictured)}`} close={() => setPictured(null)}>
        <Photo
          keep={(picture, words) => {
            const name = titled(pictured);
            void floor.photo(pictured.joint, picture, words || name, `Photo: ${name}`);
            setPictured(null);
          }}
        />
      </Over>
    );
  }
  if (joint) {
    return (
      <Over title={titled(joint)} close={() => setJoint(null)}>
        <Text fontSize="20px">
          {joint.asks}
          {joint.says && `; ${joint.says}`}
        </Text>
        {joint.kind === "weld" ? (
          <Weld floor={floor} joint={joint} done={() => setJoint(null)} />
        ) : (
          <Bolts floor={floor} joint={joint} done={() => setJoint(null)} />
        )}
      </Over>
    );
  }
  if (work === null) {
    return (
      <Over title="Welds and bolts" close={close}>
        {joints.length === 0 && <Text fontSize="20px">Nothing is welded or bolted in this plan.</Text>}
        {[...new Set(joints.map((j) => j.work))].map((name) => {
          const rows = joints.filter((j) => j.work === name);
          return (
            <Big key={name} onClick={() => setWork(name)}>
              {name}: {rows.filter((j) => j.state === "done").length} of {rows.length}
            </Big>
          );
        })}
      </Over>
    );
  }
  return (
    <Over title={work} close={() => setWork(null)}>
      {joints
        .filter((j) => j.work === work)
        .map((j) => (
          <Row key={j.joint} joint={j} open={() => setJoint(j)} picture={() => setPictured(j)} />
        ))}
    </Over>
  );
}

function Row({ joint, open, picture }: { joint: Joint; open: () => void; picture: () => void }) {
  const may = useMay();
  return (
    <Box bg="sheet" p="2" borderLeftWidth="6px" borderColor={EDGES[joint.state]}>
      <Text fontSize="20px" lineHeight="1.25" mb="1">
        {titled(joint)}: {joint.asks}
      </Text>
      <Text fontSize="20px">
        {joint.says || "not written down"}
        {joint.state === "to repair" && ": to repair"}
      </Text>
      {may.log && (
        <Flex gap="2" mt="1">
          <Big grow onClick={open}>
            {joint.state === "open" ? "Write it down" : "Write again"}
          </Big>
          <Big onClick={picture}>Photo</Big>
        </Flex>
      )}
    </Box>
  );
}

type WeldAct = Extract<FloorAct, { kind: "weld" }>;

/** Who welded it, with what; who looked, what was found. What stands of it is there to go on from. */
function Weld({ floor, joint, done }: Given) {
  const me = useSession().user ?? "";
  const was = joint.written?.kind === "weld" ? joint.written : null;
  const [act, setAct] = useState<WeldAct>({
    kind: "weld",
    joint: joint.joint,
    process: was?.process ?? "MIG/MAG",
    wire: was?.wire ?? "",
    operator: was?.operator ?? me,
    gap_mm: was?.gap_mm ?? null,
    looked_by: was?.looked_by ?? "",
    dye: was?.dye ?? "not done",
    defect: was?.defect ?? "",
    repaired: was?.repaired ?? false,
  });
  const put = (some: Partial<WeldAct>) => setAct((now) => ({ ...now, ...some }));
  const mine = act.operator.toLowerCase() === me.toLowerCase();
  const bad = act.dye === "marks" || act.defect !== "";
  const write = () => {
    void floor.write(act, `Weld: ${titled(joint)}`);
    done();
  };
  return (
    <>
      <Flex gap="2" wrap="wrap" role="group" aria-label="Process">
        {PROCESSES.map((p) => (
          <Big key={p} pressed={p === act.process} onClick={() => put({ process: p })}>
            {p === act.process ? `✓ ${p}` : p}
          </Big>
        ))}
      </Flex>
      <Line label="Wire or rod" value={act.wire ?? ""} most={60} take={(wire) => put({ wire })} />
      <Line label="Welded by" value={act.operator} most={80} take={(operator) => put({ operator })} />
      {mine ? (
        <Text fontSize="20px">Somebody else looks at it: nobody passes his own weld.</Text>
      ) : (
        <Big pressed={act.looked_by === me} onClick={() => put({ looked_by: act.looked_by === me ? "" : me })}>
          {act.looked_by === me ? `✓ Looked at by ${me}` : `I, ${me}, looked at it`}
        </Big>
      )}
      <Flex gap="2" wrap="wrap" role="group" aria-label="Dye penetrant">
        {DYES.map((d) => (
          <Big key={d} pressed={d === act.dye} onClick={() => put({ dye: d })}>
            {d === act.dye ? `✓ dye ${d}` : `dye ${d}`}
          </Big>
        ))}
      </Flex>
      <Line label="Found" value={act.defect ?? ""} take={(defect) => put({ defect })} />
      {bad && (
        <Big pressed={act.repaired} onClick={() => put({ repaired: !act.repaired })}>
          {act.repaired ? "✓ Ground out and welded again" : "Ground out and welded again"}
        </Big>
      )}
      <Big kind="main" off={!act.operator.trim()} onClick={write}>
        Write it down
      </Big>
    </>
  );
}

/** The torque as it was drawn, the mark across nut and thread, the second look. */
function Bolts({ floor, joint, done }: Given) {
  const me = useSession().user ?? "";
  const was = joint.written?.kind === "bolts" ? joint.written : null;
  const [text, setText] = useState("");
  const [marked, setMarked] = useState(was?.marked ?? false);
  const [looked, setLooked] = useState(was?.looked_by ?? "");
  const read = text.trim() ? parseTyped(text, "torque", floor.sheet.style) : null;
  const trouble = read && "message" in read ? (read.message ?? "this cannot be read") : "";
  const torque = read && !("message" in read) ? read.value : (was?.torque_nm ?? null);
  const mine = was === null || was.by === me;
  const write = () => {
    void floor.write(
      { kind: "bolts", joint: joint.joint, torque_nm: torque, marked, looked_by: looked },
      `Bolts: ${titled(joint)}`,
    );
    done();
  };
  return (
    <>
      <Line label="Drawn to" value={text} most={20} take={setText} />
      <Text role="alert" color="removed" fontSize="20px" minH="1.3em">
        {trouble}
      </Text>
      <Big pressed={marked} onClick={() => setMarked(!marked)}>
        {marked ? "✓ Marked across nut and thread" : "Marked across nut and thread"}
      </Big>
      {mine ? (
        <Text fontSize="20px">Somebody else looks at them a second time.</Text>
      ) : (
        <Big pressed={looked === me} onClick={() => setLooked(looked === me ? "" : me)}>
          {looked === me ? `✓ Second look by ${me}` : `I, ${me}, looked a second time`}
        </Big>
      )}
      <Big kind="main" off={trouble !== ""} onClick={write}>
        Write it down
      </Big>
    </>
  );
}
