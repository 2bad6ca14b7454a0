import { Box } from "@chakra-ui/react";
import { useState } from "react";
import type { RecordRow } from "../api/types";
import { useSession } from "../app/session";
import { Act, PlainChoice, PlainTick } from "../fields/controls";
import { PlainQuantity, PlainWords } from "../fields/plain";
import type { Write } from "./WeldRecordGroup";

const PROCESSES = ["MIG/MAG", "TIG", "stick"] as const;
const DYES = ["not done", "clear", "marks"] as const;
const named = <T extends string>(rows: readonly T[]) => rows.map((r) => [r, r] as const);

/** What is written of one joint: who made it, with what, who looked, what was found. */
export function JointForm({ row, write, done }: { row: RecordRow; write: Write; done: () => void }) {
  return row.kind === "weld" ? (
    <Weld joint={row.joint} write={write} done={done} />
  ) : (
    <Bolts joint={row.joint} write={write} done={done} />
  );
}

type Given = { joint: string; write: Write; done: () => void };

function Weld({ joint, write, done }: Given) {
  const [process, setProcess] = useState<(typeof PROCESSES)[number]>("MIG/MAG");
  const [wire, setWire] = useState("");
  const [operator, setOperator] = useState(useSession().user ?? "");
  const [gap, setGap] = useState<number | null>(null);
  const [looked, setLooked] = useState("");
  const [dye, setDye] = useState<(typeof DYES)[number]>("not done");
  const [defect, setDefect] = useState("");
  const [repaired, setRepaired] = useState(false);
  const keep = async () => {
    const act = { kind: "weld" as const, joint, process, wire, operator, gap_mm: gap, looked_by: looked, dye };
    if (await write({ ...act, defect, repaired })) done();
  };
  return (
    <Box display="grid" gap="2" py="1">
      <PlainChoice
        free
        label="Process"
        value={process}
        choices={named(PROCESSES)}
        choose={(next) => setProcess(PROCESSES.find((p) => p === next) ?? "MIG/MAG")}
      />
      <PlainWords label="Wire or rod" value={wire} take={setWire} />
      <PlainWords label="Welded by" value={operator} take={setOperator} />
      <PlainQuantity kind="thickness" label="Gap before" value={gap} take={setGap} />
      <PlainWords label="Looked at by somebody else" value={looked} take={setLooked} />
      <PlainChoice
        free
        label="Dye penetrant"
        value={dye}
        choices={named(DYES)}
        choose={(next) => setDye(DYES.find((d) => d === next) ?? "not done")}
      />
      <PlainWords label="Found" value={defect} take={setDefect} />
      {(defect || dye === "marks") && (
        <PlainTick label="Ground out and welded again" value={repaired} take={setRepaired} />
      )}
      <Act main off={!operator.trim()} onClick={() => void keep()}>
        Write it down
      </Act>
    </Box>
  );
}

function Bolts({ joint, write, done }: Given) {
  const [torque, setTorque] = useState<number | null>(null);
  const [marked, setMarked] = useState(false);
  const [looked, setLooked] = useState("");
  const keep = async () => {
    if (await write({ kind: "bolts", joint, torque_nm: torque, marked, looked_by: looked })) done();
  };
  return (
    <Box display="grid" gap="2" py="1">
      <PlainQuantity kind="torque" label="Drawn to" value={torque} take={setTorque} />
      <PlainTick label="Marked across nut and thread" value={marked} take={setMarked} />
      <PlainWords label="Looked at a second time by" value={looked} take={setLooked} />
      <Act main onClick={() => void keep()}>
        Write it down
      </Act>
    </Box>
  );
}
