import { Box, Flex } from "@chakra-ui/react";
import { useRef } from "react";
import { useShallow } from "zustand/react/shallow";
import type { AxleTravel } from "../api/types";
import { seenDraft, useBench, usePick } from "../draft/store";
import { useShown } from "../evaluation/useEvaluation";
import { Act, PlainChoice } from "../fields/controls";
import { showLength } from "../units/show";
import { useAxleFigure, useIndex } from "./useAxle";

/** Single wheels roll as a pair up to here. */
const PAIR_ROLL_DEG = 4;

/** Which suspension, its travel and its roll; keys as for the axle everywhere, and r with Shift for roll. */
export function TravelControls() {
  const { travelMm, rollDeg, steer, style, stage, inSpace, put } = usePick(
    "travelMm",
    "rollDeg",
    "steer",
    "style",
    "stage",
    "inSpace",
    "put",
  );
  const { index } = useIndex();
  const all = useBench(useShallow((s) => seenDraft(s).design.suspensions?.map((own) => own.axle)));
  const most = useHeldRoll();
  const low = useAxleFigure((axle) => axle.travel_mm[0]) ?? -80;
  const high = useAxleFigure((axle) => axle.travel_mm.at(-1)) ?? 80;
  const own = useAxleFigure(turnsOf);
  // in space both axles are seen: whichever is steered is turned
  const either = useShown((s) => s.result?.travel.map(turnsOf).find((turns) => turns !== undefined));
  const turns = stage === "sweep" ? either : own;
  if (!all?.length) return <Box h="8px" bg="panel" />;
  const words =
    travelMm === 0 ? "ride height" : `${showLength(Math.abs(travelMm), style)} ${travelMm > 0 ? "bump" : "droop"}`;
  return (
    <Flex className="travel" gap="2" align="center" px="3">
      {all.length > 1 && stage !== "steer" && (
        <Box w="6.8rem" flexShrink="0">
          <PlainChoice
            free
            bare
            label="Suspension"
            value={String(index)}
            choices={all.map((axle, i) => [String(i), axle === "rear" ? "rear axle" : "front axle"] as const)}
            choose={(value) => put({ suspension: Number(value) })}
          />
        </Box>
      )}
      <Box className="travel-way">
        <input
          type="range"
          aria-label="Wheel travel"
          aria-valuetext={words}
          min={low}
          max={high}
          step={1}
          value={Math.min(Math.max(travelMm, low), high)}
          onChange={(e) => put({ travelMm: Number(e.target.value) })}
        />
        <Mark at={(0 - low) / (high - low)} words="ride height" />
        <Mark at={0} words="droop" />
        <Mark at={1} words="full bump" />
      </Box>
      <Box className="travel-words" minW="5.2rem !important">
        <b>{words}</b>
      </Box>
      {most > 0 && (
        <Slide
          label="Roll"
          value={rollDeg}
          most={most}
          step={0.5}
          words={`${rollDeg.toFixed(1)}°`}
          told={`${rollDeg} degrees`}
          put={(v) => put({ rollDeg: v })}
        />
      )}
      {turns != null && (
        <Slide
          label="Steer"
          value={steer}
          most={1}
          step={0.01}
          words={`${Math.round(steer * turns)}°`}
          told={`steering wheel ${Math.round(steer * turns)} degrees to the right`}
          put={(v) => put({ steer: v })}
        />
      )}
      {(most > 0 || turns != null) && <Act onClick={() => put({ travelMm: 0, rollDeg: 0, steer: 0 })}>Ride</Act>}
      {stage !== "sweep" && (
        <Act pressed={inSpace} onClick={() => put({ inSpace: !inSpace })} hint="In space, or in three views">
          {inSpace ? "Views" : "Space"}
        </Act>
      )}
    </Flex>
  );
}

/** How far the steering wheel turns, degrees; nothing where the axle is not steered. */
const turnsOf = ({ steer }: AxleTravel) => (steer?.inputs?.length ? steer.wheel_deg : undefined);

/** How far it may lean; while a hand drags, what it was: a glance shows level poses only. */
function useHeldRoll(): number {
  const dragging = useBench((s) => s.gesture !== null);
  const now = useAxleFigure((axle) => (axle.independent ? PAIR_ROLL_DEG : axle.rolls_deg.at(-1)));
  const held = useRef(0);
  if (!dragging) held.current = now ?? 0;
  return held.current;
}

type SlideProps = {
  label: string;
  value: number;
  most: number;
  step: number;
  words: string;
  told: string;
  put: (value: number) => void;
};

/** A short slide to either side of the middle. */
function Slide({ label, value, most, step, words, told, put }: SlideProps) {
  const id = label.toLowerCase();
  return (
    <Box fontSize="13px" lineHeight="1.2" w="4.6rem" flexShrink="0">
      <Flex justify="space-between">
        <label htmlFor={id}>{id}</label>
        <span>{words}</span>
      </Flex>
      <input
        id={id}
        type="range"
        aria-label={label}
        aria-valuetext={told}
        min={-most}
        max={most}
        step={step}
        value={value}
        style={{ width: "100%", height: 24, accentColor: "var(--chakra-colors-chalk)" }}
        onChange={(e) => put(Number(e.target.value))}
      />
    </Box>
  );
}

function Mark({ at, words }: { at: number; words: string }) {
  return (
    <span className="travel-mark" style={{ left: `${100 * at}%`, top: 22 }}>
      <i />
      {words}
    </span>
  );
}
