import type { Layout, Suspension } from "../api/types";

export type Steering = NonNullable<Suspension["steering"]>;
export type Gear = Steering["gear"];

/** Gears that a layout can have, with words. */
export function gearsFor(layout: Layout): (readonly [Gear["kind"], string])[] {
  if (layout.kind === "double-wishbone" || layout.kind === "strut") {
    return [
      ["rack", "rack"],
      ["centre-link", "box, centre link and idler"],
    ];
  }
  if (layout.kind === "trailing" || layout.kind === "multi-link") return [];
  return [["drag-link", "box with a drag link"]];
}
