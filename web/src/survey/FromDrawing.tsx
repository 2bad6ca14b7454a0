import { Text } from "@chakra-ui/react";
import { useState } from "react";
import { api, got, Refused } from "../api/client";
import type { Problem } from "../api/types";
import { TroubleList } from "../app/TroubleList";
import { shownDraft, useBench, usePick } from "../draft/store";
import { Act } from "../fields/controls";
import { useFile } from "../fields/useFile";
import { unitOf } from "../units/show";

const KIND = ".dxf,.svg,image/svg+xml";

/** Stations from a side outline, or the section from a cross-section, as the user has drawn them. */
export function FromDrawing() {
  const { side, style, act } = usePick("side", "style", "act");
  const rail = useBench((s) => shownDraft(s).survey.rails[side]);
  const [problems, setProblems] = useState<Problem[]>([]);
  const [said, setSaid] = useState("");
  const unit = unitOf("length", style) === "mm" ? ("mm" as const) : ("in" as const);
  const like = rail.stations[0];
  const taken = (words: string) => {
    setSaid(words);
    setProblems([]);
  };
  const refused = (error: unknown) => {
    const message = error instanceof Error ? error.message : "not read";
    const own = error instanceof Refused ? error.problems : [];
    setSaid("");
    setProblems(own.length ? own : [{ pointer: "", message, found: "", expected: "" }]);
  };
  const outline = async (file: File) => {
    if (!like) return;
    try {
      const body = { text: await file.text(), unit, front_x_mm: like.x_mm, like };
      const stations = await got(api.POST("/api/rail/outline", { body }));
      act({ kind: "set", path: ["survey", "rails", side, "stations"], value: stations });
      taken(
        `${stations.length} stations from the outline; its left end is where the rail's front end was. Widths and walls are the first station's.`,
      );
    } catch (error) {
      refused(error);
    }
  };
  const section = async (file: File) => {
    try {
      const found = await got(api.POST("/api/rail/section", { body: { text: await file.text(), unit } }));
      const sizes = { height_mm: found.height_mm, width_mm: found.width_mm, wall_mm: found.wall_mm };
      const stations = rail.stations.map((station) => ({ ...station, ...sizes }));
      const value = { ...rail, kind: found.kind, lip_mm: found.lip_mm, lips: found.lips, stations };
      act({ kind: "set", path: ["survey", "rails", side], value });
      const off = (share: number) => `${(share * 100).toFixed(1)} %`;
      taken(
        `Taken for a ${found.kind.replace("-", " ")}; area ${off(found.area_off)}, inertia ${off(found.inertia_off)} off the drawing. Every station got these sizes.`,
      );
    } catch (error) {
      refused(error);
    }
  };
  const side_view = useFile("Rail outline as DXF or SVG", KIND, (file) => void outline(file));
  const across = useFile("Rail section as DXF or SVG", KIND, (file) => void section(file));
  return (
    <>
      <Act
        onClick={side_view.ask}
        hint="A closed outline seen from the side, front to the left; y = 0 is the datum plane"
      >
        Outline from DXF or SVG
      </Act>
      <Act onClick={across.ask} hint="A closed cross-section, web upright">
        Section from DXF or SVG
      </Act>
      {side_view.input}
      {across.input}
      {said && (
        <Text role="status" fontSize="13px" width="100%">
          {said}
        </Text>
      )}
      <TroubleList problems={problems} lead="The rail is as it was." />
    </>
  );
}
