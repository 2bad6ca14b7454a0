import type { StageName } from "../draft/store";

/** The stages as they are called. */
export const TITLES: Record<StageName, string> = {
  survey: "Survey",
  target: "Target",
  cut: "Cut",
  travel: "Travel",
  steer: "Steering",
  sweep: "Clearance",
  patterns: "Patterns",
  build: "Build",
  prove: "Prove",
};
