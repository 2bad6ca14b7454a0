import { type StageName, type SURVEY_TABS, useBench } from "../draft/store";
import { focusOn } from "./focusOn";

/** Which stage shows what begins so, and which of the survey's tables. The first that fits decides. */
const PLACES: readonly (readonly [start: string, stage: StageName, tab?: (typeof SURVEY_TABS)[number]])[] = [
  ["/survey/rails", "survey", "Rail stations"],
  ["/survey/features", "survey", "Features"],
  ["/survey/crossmembers", "survey", "Crossmembers"],
  ["/survey/masses", "survey", "Masses and seats"],
  ["/survey/seats", "survey", "Masses and seats"],
  ["/survey/stops", "survey", "Masses and seats"],
  ["/survey/suspensions", "travel"],
  ["/survey", "survey"],
  ["/design/seats", "survey", "Masses and seats"],
  ["/design/loads", "survey", "Masses and seats"],
  ["/design/targets", "target"],
  ["/design/operations", "cut"],
  ["/design/suspensions", "travel"],
  ["/design/obstacles", "sweep"],
  ["/design/supports", "build"],
  ["/design/lifts", "build"],
];

/** Open the stage and the table in which a pointer's field stands, and put the keyboard into it. */
export function openAt(pointer: string): void {
  const steers = /^\/design\/suspensions\/\d+\/(steering|layout\/toe)/.test(pointer);
  const [, there, tab] = PLACES.find(([start]) => pointer.startsWith(start)) ?? [];
  const stage = steers ? "steer" : there;
  const { put, history } = useBench.getState();
  const [, root, list, index] = pointer.split("/");
  if (stage) put({ stage, ...(tab && { surveyTab: tab }) });
  if (pointer.startsWith("/survey/rails/")) put({ side: index === "right" ? "right" : "left" });
  if (list === "suspensions") put({ before: root === "survey", suspension: Number(index ?? 0) });
  if (root === "design" && list === "operations" && index)
    put({ selected: history.now.design.operations?.[Number(index)]?.id ?? null });
  focusOn(pointer);
}
