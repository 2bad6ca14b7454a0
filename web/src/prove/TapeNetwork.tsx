import { Box, Text } from "@chakra-ui/react";
import { useState } from "react";
import type { JobHead, TapedFrame } from "../api/types";
import { useMay } from "../app/session";
import { paint } from "../app/theme";
import { useBench } from "../draft/store";
import { NONE, useShown } from "../evaluation/useEvaluation";
import { Group, PlainChoice } from "../fields/controls";
import { showLength } from "../units/show";
import { FrameTimes } from "./FrameTimes";
import { fine } from "./fine";
import { TakeLength, TakeLevel, WHENS, type When } from "./TakeFrame";
import { TapePlan } from "./TapePlan";

/** Points of the frame measured by lengths between them: which one is wrong, where the points are, how square it is. */
export function TapeNetwork({ job }: { job: JobHead }) {
  const taped = useShown((s) => s.result?.taped ?? null);
  const times = useShown((s) => s.result?.frame_times ?? NONE);
  const may = useMay();
  const [when, setWhen] = useState<When>("");
  return (
    <Group title="Frame by tape">
      <Text fontSize="14px">
        Lengths between the same marks on both rails and hub to hub, plumbed to the floor or along the webs' outer
        faces: sides, both diagonals of every bay, and a few over two bays. Levels say twist and sag.
      </Text>
      {may.log && (
        <Box display="grid" gap="2" my="2">
          <PlainChoice
            free
            label="Measured"
            value={when}
            choices={WHENS}
            choose={(next) => setWhen(WHENS.find(([w]) => w === next)?.[0] ?? "")}
          />
          <TakeLength job={job} when={when} />
          <TakeLevel job={job} when={when} />
        </Box>
      )}
      {taped && <Found taped={taped} />}
      {times.length > 0 && <FrameTimes times={times} />}
    </Group>
  );
}

function Found({ taped }: { taped: TapedFrame }) {
  const style = useBench((s) => s.style);
  const { network } = taped;
  const length = (mm: number) => showLength(mm, style);
  const worst = taped.lengths.find((row) => row.entry === taped.left_out);
  const names = (ids: readonly string[]) => ids.map((id) => taped.names[id] ?? id).join("; ");
  return (
    <Box fontSize="14px">
      <TapePlan taped={taped} />
      {worst && (
        <Text color="removed" fontWeight="600">
          {worst.start_name} to {worst.end_name} (entry {worst.entry}) is about{" "}
          {fine(Math.abs(worst.blunder_mm ?? worst.off_mm), style)}{" "}
          {(worst.blunder_mm ?? 0) > 0 ? "too long" : "too short"}: tape it again. The points below leave it out.
        </Text>
      )}
      {taped.lengths.filter((row) => row.suspect && row !== worst).length > 0 && (
        <Text>It cannot be told from the other marked lengths.</Text>
      )}
      {network.loose.length > 0 && <Text>Not held by lengths: {names(network.loose)}.</Text>}
      {network.redundancy < 1 && <Text>No length controls another yet: an error would not show.</Text>}
      {network.redundancy > 0 && (
        <Text>
          {network.redundancy} lengths more than the points need
          {network.uncontrolled.length > 0 && `; ${network.uncontrolled.length} in which an error would not show`}.
        </Text>
      )}
      {taped.helps.length > 0 && (
        <Text>The length that would help most: {taped.helps.map((id) => taped.names[id] ?? id).join(" to ")}.</Text>
      )}
      {taped.replaced.map((entry) => (
        <Text key={entry}>Entry {entry} did not fit and was taped again: the later length counts.</Text>
      ))}
      <Box
        as="table"
        width="100%"
        fontVariantNumeric="tabular-nums"
        mt="1"
        css={{ "& td, & th": { verticalAlign: "top", paddingInlineEnd: "8px", textAlign: "left", fontWeight: 400 } }}
      >
        <Box as="thead" color="faint">
          <tr>
            <th>length, worst first</th>
            <th>measured</th>
            <th>off by</th>
          </tr>
        </Box>
        <tbody>
          {[...taped.lengths]
            .sort((a, b) => Math.abs(b.off_mm) - Math.abs(a.off_mm))
            .map((row) => (
              <tr key={row.entry} style={{ color: row.suspect ? paint("removed") : undefined }}>
                <td>
                  {row.start_name} to {row.end_name}
                </td>
                <td>{length(row.measured_mm)}</td>
                <td>{fine(Math.abs(row.off_mm), style)}</td>
              </tr>
            ))}
        </tbody>
      </Box>
    </Box>
  );
}
