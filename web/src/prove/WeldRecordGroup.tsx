import { Box, Flex, Text } from "@chakra-ui/react";
import { useState } from "react";
import type { JobHead, RecordRow } from "../api/types";
import { useMay } from "../app/session";
import { Act, Group } from "../fields/controls";
import { JointForm } from "./JointForm";
import { PaintForm } from "./PaintForm";
import { useRecord } from "./useRecord";

/** Joint by joint from the weld map: made, looked at by somebody else, repaired; bolts with torque; coats. */
export function WeldRecordGroup({ job }: { job: JobHead }) {
  const { record, write, trouble } = useRecord(job.id);
  const may = useMay();
  const works = new Map<string, RecordRow[]>();
  for (const row of record?.rows ?? []) works.set(row.work, [...(works.get(row.work) ?? []), row]);
  return (
    <Group title="Welds, bolts, paint">
      {record?.open_points.map((words) => (
        <Text key={words} fontSize="14px">
          {words}.
        </Text>
      ))}
      <Text role="alert" color="removed" fontSize="14px">
        {trouble}
      </Text>
      {[...works].map(([work, rows]) => (
        <Work key={work} work={work} rows={rows} write={write} />
      ))}
      {record?.paint.map((p) => (
        <Text key={p.number} fontSize="14px">
          {p.zone}: {p.coats ? `${p.coats} ${p.coats === 1 ? "coat" : "coats"}` : "bare metal, cleaned"}
          {p.film_um && `, ${p.film_um} µm`}
          {p.looked_by && `, looked at by ${p.looked_by}`}
        </Text>
      ))}
      {may.log && <PaintForm write={write} />}
    </Group>
  );
}

export type Write = ReturnType<typeof useRecord>["write"];
const MARKS: Record<RecordRow["state"], string> = { open: "○", made: "◐", "to repair": "✕", done: "●" };

function Work({ work, rows, write }: { work: string; rows: readonly RecordRow[]; write: Write }) {
  const [open, setOpen] = useState(false);
  const done = rows.filter((r) => r.state === "done").length;
  return (
    <Box as="section" aria-label={`${work}, joints`} py="1" borderTopWidth="1px" borderColor="rule" fontSize="14px">
      <Flex justify="space-between" align="baseline" gap="2">
        <Text fontWeight="600">{work}</Text>
        <Act slight onClick={() => setOpen(!open)}>
          {done} of {rows.length} done{open ? ", fold" : ""}
        </Act>
      </Flex>
      {open && rows.map((row) => <Joint key={row.joint} row={row} write={write} />)}
    </Box>
  );
}

function Joint({ row, write }: { row: RecordRow; write: Write }) {
  const may = useMay();
  const [open, setOpen] = useState(false);
  return (
    <Box ps="2" py="1">
      <Flex justify="space-between" gap="2">
        <Box>
          <Text>
            <span aria-hidden="true">{MARKS[row.state]}</span> {row.name}
            {row.side && `, ${row.side}`}
          </Text>
          <Text fontSize="13px" color="faint">
            {row.asks}; {row.says || "not written down"}
            {row.state === "to repair" && ": to repair"}
          </Text>
        </Box>
        {may.log && (
          <Act slight onClick={() => setOpen(!open)}>
            {open ? "fold" : "write"}
          </Act>
        )}
      </Flex>
      {open && <JointForm row={row} write={write} done={() => setOpen(false)} />}
    </Box>
  );
}
