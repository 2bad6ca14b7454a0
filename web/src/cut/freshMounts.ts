import type { Operation, OperationKind } from "../api/types";
import type { Draft } from "../draft/document";

export const TAB = {
  thickness_mm: 6,
  width_mm: 60,
  standoff_mm: 55,
  lift_mm: 0,
  edge_mm: 30,
  bolt_size: "M16",
  grade: "10.9",
  stiff: true,
  single: false,
  joint_mm: 60,
  shim_mm: 0.38,
  holes_above: 0,
  holes_below: 0,
  pitch_mm: 40,
  room_mm: null,
};
const SMALL = { ...TAB, bolt_size: "M12", width_mm: 45, edge_mm: 22, joint_mm: 35, standoff_mm: 35, thickness_mm: 5 };

type Base = <K extends OperationKind>(kind: K, name: string) => { kind: K; id: string; name: string; side: "both" };
type Place = { anchor_id: string; offset_mm: number };

/** New mounts near the rear axle, ready to be typed and dragged. */
export function freshMount(draft: Draft, kind: OperationKind, base: Base, at: (mm: number) => Place): Operation | null {
  const rail = draft.survey.rails.right;
  const inner = (rail.web_y_mm ?? 410) - Math.max(...rail.stations.map((s) => s.width_mm));
  const onAxle = {
    place: at(0),
    x_mm: 0,
    tube_mm: draft.survey.rear.tube_diameter_mm ?? 76,
    tube_wall_mm: null,
    housing: "not known" as const,
    housing_half_mm: null,
    thickness_mm: 6,
    steel_id: "mild",
    weld_leg_mm: 5,
    along_n: 0,
    out_n: 0,
    up_n: 0,
  };
  switch (kind) {
    case "spring-bridge":
      return {
        ...base(kind, "Spring crossmember"),
        place: at(-20),
        form: "straight",
        height_mm: 120,
        y_mm: Math.max(Math.round(inner - 60), 100),
        od_mm: 48.3,
        wall_mm: 5,
        steel_id: "mild",
        weld_leg_mm: 5,
        tabs: SMALL,
        gusset_mm: 0,
        spring_n: 0,
        across_n: 0,
      };
    case "spring-pocket":
      return {
        ...base(kind, "Spring pocket"),
        place: at(-300),
        length_mm: 110,
        depth_mm: 15,
        corner_radius_mm: 6.5,
        bolt_up_mm: 90,
        bolt_size: "M14",
        grade: "10.9",
        body_mm: 76,
        plate_mm: 5,
        overlap_mm: 200,
        gusset_mm: 60,
        steel_id: "mild",
        weld_leg_mm: 5,
        sleeve: true,
        spring_n: 0,
      };
    case "pad":
      return {
        ...base(kind, "Bump stop's plate"),
        place: at(-250),
        holds: "bump-stop",
        long_mm: 100,
        across_mm: 60,
        thickness_mm: 8,
        out_mm: 0,
        drop_mm: 0,
        steel_id: "mild",
        weld_leg_mm: 5,
        force_n: 0,
      };
    case "axle-bracket":
      return {
        ...base(kind, "Bracket on the axle"),
        ...onAxle,
        y_mm: Math.round(inner),
        z_mm: -80,
        holds: "link",
        stands_on: "tube",
        base_mm: 0,
        brace: true,
        tabs: TAB,
      };
    case "truss":
      return {
        ...base(kind, "Truss on the axle"),
        ...onAxle,
        y_mm: 90,
        z_mm: 0,
        foot_from_mm: 230,
        foot_to_mm: 380,
        tall_mm: 90,
        deep_mm: 80,
        clear_mm: 45,
      };
    case "axle-pad":
      return {
        ...base(kind, "Air spring's lower plate"),
        ...onAxle,
        y_mm: Math.round(inner - 60),
        z_mm: 70,
        holds: "air-spring",
        long_mm: 110,
        across_mm: 110,
        tilt_deg: 0,
      };
    case "steering-mount":
      return {
        ...base(kind, "Steering box's mount"),
        place: at(-300),
        holds: "box",
        face: "outer",
        height_mm: 75,
        long_mm: 200,
        tall_mm: 120,
        thickness_mm: 10,
        steel_id: "mild",
        bolts: { size: "M12", grade: "10.9", per_end: 2, edge_mm: 25, positions: [], sleeves: true },
        pad: { long_mm: 110, tall_mm: 60, bolt_size: "M12", grade: "10.9", corners: 4 },
        standoff_mm: 60,
        lift_mm: 0,
        along_n: 0,
        up_n: 0,
        out_n: 0,
      };
    default:
      return null;
  }
}
