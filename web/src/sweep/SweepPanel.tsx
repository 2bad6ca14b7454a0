import { Box, Flex, Progress, Text } from "@chakra-ui/react";
import { useState } from "react";
import type { SweptPair } from "../api/types";
import { shownDraft, useBench } from "../draft/store";
import { Act, Group } from "../fields/controls";
import { VerdictMark } from "../margins/VerdictMark";
import { Facts } from "../travel/Facts";
import { stateName } from "../units/loadStates";
import { showLength } from "../units/show";
import { CutChoices } from "./CutChoices";
import { Obstacles } from "./Obstacles";
import { OnFile } from "./OnFile";
import { TuckFinder } from "./TuckFinder";
import { TwoThings } from "./TwoThings";
import { isOld, useSweep } from "./useSweep";

/** Angles under the vehicle, of the last sweep. */
function Under() {
  const under = useSweep((s) => s.result?.under);
  if (!under?.length) return null;
  return (
    <Group title="Under the vehicle">
      <Facts facts={under} />
    </Group>
  );
}

const FIRST = 14;

/** Everything that moves against everything that it may touch: the list, what to do about a pair, what stands around. */
export default function SweepPanel() {
  return (
    <>
      <RunBox />
      <OnFile />
      <PairList />
      <Under />
      <TwoThings />
      <TuckFinder />
      <Obstacles />
    </>
  );
}

function RunBox() {
  const { progress, trouble, told, run, cancel, on, result } = useSweep();
  const old = useBench((s) => isOld(on, shownDraft(s)));
  return (
    <Box mb="2">
      {progress ? (
        <Flex gap="2" align="center">
          <Progress.Root flex="1" value={progress.done} max={Math.max(progress.total, 1)} aria-label="Pairs swept">
            <Progress.Track bg="sheet">
              <Progress.Range bg="chalk" />
            </Progress.Track>
          </Progress.Root>
          <Text fontSize="13px" whiteSpace="nowrap">
            {told || `${progress.done} of ${progress.total}`}
          </Text>
          <Act onClick={cancel}>Cancel</Act>
        </Flex>
      ) : (
        <Act main={old} onClick={() => void run()} hint="Bump, droop, roll and lock of both axles">
          {result && !old ? "Sweep again" : "Sweep everything"}
        </Act>
      )}
      <Text role="alert" color="removed" fontSize="14px">
        {trouble}
      </Text>
      {result && (
        <Text fontSize="13px" color="faint" mt="1" role="status">
          {old ? "The design has changed since: sweep again. " : ""}
          {result.pairs.length} pairs over {result.positions.toLocaleString("en")} positions.
        </Text>
      )}
      {result && !old && result.left_out.length > 0 && (
        <Text fontSize="13px" mt="1">
          Not looked at: {result.left_out.join("; ")}.
        </Text>
      )}
      {!result && !progress && (
        <Text mt="2">
          Tyres, rods, springs and axles go through all their travel, roll and lock, and are held against the rails with
          their cuts, against each other, and against what you place below.
        </Text>
      )}
    </Box>
  );
}

/** Pairs worst first; those that stay far away are only counted. */
function PairList() {
  const { pairs, chosen, choose, optionId } = useSweep();
  const here = useBench((s) => s.optionId) === optionId;
  const [all, setAll] = useState(false);
  const near = here ? pairs.filter((p) => p.gap_mm != null) : [];
  if (near.length === 0) return null;
  const shown = all ? near : near.slice(0, FIRST);
  const far = pairs.length - near.length;
  return (
    <Group title="Nearest first">
      <ul aria-label="Clearances" style={{ listStyle: "none", margin: 0, padding: 0 }}>
        {shown.map((pair) => (
          <li key={pair.id} className="row">
            <PairRow pair={pair} open={chosen === pair.id} toggle={() => choose(chosen === pair.id ? null : pair)} />
          </li>
        ))}
      </ul>
      {near.length > FIRST && (
        <Box mt="1">
          <Act onClick={() => setAll(!all)}>{all ? "Fewer" : `All ${near.length}`}</Act>
        </Box>
      )}
      {far > 0 && (
        <Text fontSize="13px" color="faint" mt="1">
          {far} more pairs stay further apart than matters.
        </Text>
      )}
    </Group>
  );
}

function PairRow({ pair, open, toggle }: { pair: SweptPair; open: boolean; toggle: () => void }) {
  const style = useBench((s) => s.style);
  const length = (mm: number) => showLength(mm, style);
  return (
    <>
      <button type="button" className="row-head" aria-expanded={open} onClick={toggle}>
        <VerdictMark verdict={pair.verdict} />
        <span className="row-words">
          <span className="row-title" style={{ display: "block" }}>
            {pair.axle} {pair.moving} to {pair.other}
          </span>
          <span className="row-value" style={{ display: "block" }}>
            {pair.inside_at_rest
              ? `overlaps by ${length(-(pair.gap_mm ?? 0))} at rest already`
              : `${length(pair.gap_mm ?? 0)} of ${length(pair.needed_mm)} wanted`}
          </span>
        </span>
      </button>
      {open && <PairMore pair={pair} />}
    </>
  );
}

function PairMore({ pair }: { pair: SweptPair }) {
  const style = useBench((s) => s.style);
  const short = pair.short_mm ?? 0;
  const where = `${showLength(pair.at?.[0] ?? 0, style)} behind the front axle line`;
  const travel = pair.travel_mm ?? 0;
  const parts = [
    Math.abs(travel) < 0.5
      ? "at ride height"
      : `at ${showLength(Math.abs(travel), style)} ${travel > 0 ? "bump" : "droop"}`,
    pair.roll_deg ? `${pair.roll_deg.toFixed(1)}° roll` : "",
    pair.input
      ? `${Math.abs(Math.round(100 * pair.input))} % of the lock to the ${pair.input > 0 ? "right" : "left"}`
      : "",
  ].filter(Boolean);
  return (
    <Box fontSize="14px" px="1" pb="2">
      {!pair.inside_at_rest && (
        <Text>
          Least {parts.join(", ")}; {where}.
        </Text>
      )}
      {pair.inside_at_rest && <Text>They stand in one place, {where}: cut out for it, or placed wrongly.</Text>}
      {!pair.inside_at_rest && short > 0 && pair.words && pair.kind !== "rail" && (
        <Text>
          Room: move {pair.kind === "moving" ? "them apart" : `the ${pair.other} ${pair.words}`} by{" "}
          {showLength(short, style)}.
        </Text>
      )}
      {Object.keys(pair.stands_mm ?? {}).length > 0 && (
        <Text>
          Standing straight:{" "}
          {Object.entries(pair.stands_mm ?? {})
            .map(([state, gap]) => `${stateName(state)} ${showLength(gap, style)}`)
            .join(", ")}
          .
        </Text>
      )}
      {pair.first_bump_mm != null && !pair.inside_at_rest && (
        <Text>First touch in bump, straight ahead: {showLength(pair.first_bump_mm, style)}.</Text>
      )}
      {pair.first_lock != null && !pair.inside_at_rest && (
        <Text>First touch in lock, at ride height: {Math.abs(Math.round(100 * pair.first_lock))} % of the lock.</Text>
      )}
      {pair.kind === "rail" && !pair.moving.startsWith("tyre") && !pair.moving.startsWith("spring") && (
        <CutChoices key={pair.id} pair={pair} />
      )}
    </Box>
  );
}
