import { Text } from "@chakra-ui/react";
import { paint } from "../app/theme";
import { shownDraft, useBench, usePick } from "../draft/store";
import { useMainAxle, useShown } from "../evaluation/useEvaluation";
import { showLength } from "../units/show";
import { nearest } from "./scale";

/** The one control of everything that moves: bump and droop of the axle, with the place of first touch. */
export function TravelBar() {
  const { side, travelMm, style, put } = usePick("side", "travelMm", "style", "put");
  const targets = useBench((s) => shownDraft(s).design.targets);
  const axle = useShown((s) => s.result?.axle.find((a) => a.side === side));
  const front = useMainAxle() === "front";
  if (!axle) {
    return (
      <Text px="3" py="2" fontSize="14px" color="faint">
        {front
          ? "This job is about the front axle: it moves in Travel, once its suspension is there."
          : "The axle does not move yet: wheelbase, tube diameter and tube-to-rail gap are missing in the survey."}
      </Text>
    );
  }
  const [low, high] = [axle.travel_mm[0] ?? 0, axle.travel_mm.at(-1) ?? 0];
  const row = nearest(travelMm, axle.travel_mm);
  const clear = axle.clearance_mm[row] ?? 0;
  const share = (mm: number) => `${((mm - low) / (high - low)) * 100}%`;
  const marks = [
    { at: -targets.droop_mm, name: "droop", colour: "faint" as const },
    { at: 0, name: "ride height", colour: "ink" as const },
    { at: targets.bump_mm, name: "full bump", colour: "ink" as const },
    ...(axle.touch_mm === null ? [] : [{ at: axle.touch_mm, name: "touches", colour: "touch" as const }]),
  ];
  const words =
    travelMm === 0 ? "ride height" : `${showLength(Math.abs(travelMm), style)} ${travelMm > 0 ? "bump" : "droop"}`;
  return (
    <div className="travel">
      <div className="travel-way">
        <input
          type="range"
          aria-label="Axle travel"
          aria-valuetext={words}
          min={low}
          max={high}
          step={2}
          value={travelMm}
          onChange={(e) => put({ travelMm: Number(e.target.value) })}
        />
        {marks.map((mark) => (
          <span
            key={mark.name}
            className={mark.name === "touches" ? "travel-mark travel-mark-over" : "travel-mark"}
            style={{ left: share(mark.at), color: paint(mark.colour) }}
          >
            <i />
            {mark.name}
          </span>
        ))}
      </div>
      <div className="travel-words">
        <b>{words}</b>
        <div style={{ color: paint(clear < axle.needed_mm ? "touch" : "faint") }}>
          {clear < 0 ? `${showLength(-clear, style)} into metal` : `${showLength(clear, style)} clear, ${side}`}
        </div>
      </div>
    </div>
  );
}
