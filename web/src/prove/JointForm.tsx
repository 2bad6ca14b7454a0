import { Box } from "@chakra-ui/react";
import { useState } from "react";
import type { RecordRow } from "../api/types";
import { useSession } from "../app/session";
import { Act, PlainChoice, PlainTick } from "../fields/controls";
import { PlainQuantity, PlainWords } from "../fields/plain";
import { DYES, PROCESSES } from "./joints";
import type { Write } from "./WeldRecordGroup";

const named = <T extends string>(rows: readonly T[]) => rows.map((r) => [r, r] as const);

/** What is written of one joint: who made it, with what, who looked, what was found. */
export function JointForm({ row, write, done }: { row: RecordRow; write: Write; done: () => void }) {
  return row.kind === "weld" ? (
    <Weld row={row} write={write} done={done} />
  ) : (
    <Bolts row={row} write={write} done={done} />
  );
}

type Given = { row: RecordRow; write: Write; done: () => void };

function Weld({ row, write, done }: Given) {
  const { joint } = row;
  const me = useSession().user ?? "";
  const was = row.written?.kind === "weld" ? row.written : null;
  const [process, setProcess] = useState<(typeof PROCESSES)[number]>(was?.process ?? "MIG/MAG");
  const [wire, setWire] = useState(was?.wire ?? "");
  const [operator, setOperator] = useState(was?.operator ?? me);
  const [gap, setGap] = useState<number | null>(was?.gap_mm ?? null);
  const [looked, setLooked] = useState(was?.looked_by ?? "");
  const [dye, setDye] = useState<(typeof DYES)[number]>(was?.dye ?? "not done");
  const [defect, setDefect] = useState(was?.defect ?? "");
  const [repaired, setRepaired] = useState(was?.repaired ?? false);
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

function Bolts({ row, write, done }: Given) {
  const { joint } = row;
  const was = row.written?.kind === "bolts" ? row.written : null;
  const [torque, setTorque] = useState<number | null>(was?.torque_nm ?? null);
  const [marked, setMarked] = useState(was?.marked ?? false);
  const [looked, setLooked] = useState(was?.looked_by ?? "");
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
