import { Box, Text } from "@chakra-ui/react";
import { useState } from "react";
import type { JobHead } from "../api/types";
import { useMay } from "../app/session";
import { keepShop } from "../bench/keepShop";
import { Act, Group, Pair, PlainChoice } from "../fields/controls";
import { PlainWords } from "../fields/plain";
import { reasonOf } from "../prove/reason";

type Welding = JobHead["shop"]["welding"];
const PROCESSES = ["MIG/MAG", "TIG", "stick"] as const;

/** What the shop welds with: heat input and the waits between beads follow from it. */
export function WeldingFields({ job }: { job: JobHead }) {
  return <Fields key={job.shop_number} job={job} stands={job.shop.welding} />;
}

function Fields({ job, stands }: { job: JobHead; stands: Welding }) {
  const [process, setProcess] = useState(stands.process);
  const [volts, setVolts] = useState(String(stands.volts));
  const [amps, setAmps] = useState(String(stands.amps));
  const [trouble, setTrouble] = useState("");
  const may = useMay();
  const changed = process !== stands.process || volts !== String(stands.volts) || amps !== String(stands.amps);
  const keep = async () => {
    try {
      const [v, a] = [numberOf(volts, "volts"), numberOf(amps, "amperes")];
      await keepShop(job, { ...job.shop, welding: { process, volts: v, amps: a } });
      setTrouble("");
    } catch (error) {
      setTrouble(reasonOf(error));
    }
  };
  return (
    <Group title="Welding">
      <PlainChoice
        label="Process"
        value={process}
        choices={PROCESSES.map((p) => [p, p] as const)}
        choose={(next) => setProcess(next as Welding["process"])}
      />
      <Pair>
        <PlainWords label="Volts" value={volts} take={setVolts} />
        <PlainWords label="Amperes" value={amps} take={setAmps} />
      </Pair>
      {changed && may.design && (
        <Box>
          <Act main onClick={() => void keep()}>
            Keep this setting
          </Act>
        </Box>
      )}
      <Text role="alert" color="removed" fontSize="14px">
        {trouble}
      </Text>
    </Group>
  );
}

function numberOf(text: string, what: string): number {
  const value = Number(text.trim().replace(",", "."));
  if (!text.trim() || !Number.isFinite(value)) throw new Error(`'${text}' is no number of ${what}`);
  return value;
}
