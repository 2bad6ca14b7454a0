import type { components } from "../api/schema";

type Schemas = components["schemas"];
export type FloorSheet = Schemas["FloorSheet"];
export type FloorStep = Schemas["FloorStep"];
export type FloorPicture = Schemas["FloorPicture"];
export type FloorAct = Schemas["FloorBody"]["act"];
export type ReadWith = Schemas["ReadWith"];
export type Signing = Extract<FloorAct, { kind: "sign" }>;
export type HeatPlan = Schemas["HeatPlan"];
export type Bead = Schemas["Bead"];
