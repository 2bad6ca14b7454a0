import { Box, Flex, Text } from "@chakra-ui/react";
import { useState } from "react";
import type { components } from "../api/schema";
import type { JobHead, Style } from "../api/types";
import { useMay } from "../app/session";
import { useBench } from "../draft/store";
import { Act, Group } from "../fields/controls";
import { FileLink } from "../fields/FileLink";
import { PlainQuantity, PlainWords } from "../fields/plain";
import { useRecord } from "./useRecord";
import type { Write } from "./WeldRecordGroup";

type Inspection = components["schemas"]["Inspection"];
const KM_PER_MILE = 1.609344;
const far = (km: number, style: Style) =>
  style === "mm" ? `${km} km` : `${Number((km / KM_PER_MILE).toPrecision(1))} miles`;

/** After the first drive: what is looked at again, on which day, and what was found. */
export function AfterGroup({ job }: { job: JobHead }) {
  const { later, write, trouble } = useRecord(job.id);
  const { optionId, style } = useBench();
  const may = useMay();
  return (
    <Group title="After the first drive">
      <Text role="alert" color="removed" fontSize="14px">
        {trouble}
      </Text>
      {may.log && <FirstDrive first={later?.first ?? ""} style={style} write={write} />}
      {later?.inspections.map((own) => (
        <Looked key={own.km} own={own} style={style} write={write} />
      ))}
      {later?.first && <FileLink href={`/api/options/${optionId}/inspections.ics`} name="Both days as a calendar" />}
    </Group>
  );
}

function FirstDrive({ first, style, write }: { first: string; style: Style; write: Write }) {
  const [day, setDay] = useState("");
  const [week, setWeek] = useState<number | null>(null);
  const perWeek = style === "mm" ? week : week && week * KM_PER_MILE;
  return (
    <Box display="grid" gap="2" mb="2">
      <Text fontSize="14px">{first ? `First driven on ${first}.` : "Not driven yet."}</Text>
      <Flex as="label" direction="column" fontSize="14px">
        First drive
        <input type="date" className="day" value={day} onChange={(e) => setDay(e.target.value)} />
      </Flex>
      <PlainQuantity
        kind="number"
        label={style === "mm" ? "Kilometres a week" : "Miles a week"}
        value={week}
        take={setWeek}
      />
      <Act
        off={!day || !perWeek}
        onClick={() => void write({ kind: "on-the-road", first: day, km_week: perWeek ?? 0 })}
      >
        Write it down
      </Act>
    </Box>
  );
}

function Looked({ own, style, write }: { own: Inspection; style: Style; write: Write }) {
  const [open, setOpen] = useState(false);
  const done = own.rows.filter((r) => r.ok !== null).length;
  const bad = own.rows.filter((r) => r.ok === false).length;
  return (
    <Box as="section" aria-label={`After ${far(own.km, style)}`} py="1" borderTopWidth="1px" borderColor="rule">
      <Flex justify="space-between" align="baseline" fontSize="14px">
        <Text fontWeight="600">
          After {far(own.km, style)}
          {own.day && `, ${own.day}`}
        </Text>
        <Act slight onClick={() => setOpen(!open)}>
          {done} of {own.rows.length} looked at{bad > 0 && `, ${bad} not well`}
        </Act>
      </Flex>
      {open && own.rows.map((row) => <Look key={row.what} km={own.km} row={row} write={write} />)}
    </Box>
  );
}

function Look({ km, row, write }: { km: Inspection["km"]; row: Inspection["rows"][number]; write: Write }) {
  const may = useMay();
  const [found, setFound] = useState("");
  const say = (ok: boolean) => write({ kind: "inspection", km, what: row.what, ok, found: found.trim() });
  return (
    <Box py="1" fontSize="14px">
      <Text>{row.words}</Text>
      {row.ok !== null && (
        <Text color={row.ok ? "faint" : "removed"} fontSize="13px">
          {row.ok ? "well" : "not well"}, {row.by}
          {row.found && `: ${row.found}`}
        </Text>
      )}
      {may.log && (
        <Box>
          <PlainWords label="Found" value={found} take={setFound} />
          <Flex gap="2" mt="1">
            <Act onClick={() => void say(true)}>Well</Act>
            <Act off={!found.trim()} onClick={() => void say(false)}>
              Not well
            </Act>
          </Flex>
        </Box>
      )}
    </Box>
  );
}
