import { api, got, Refused } from "../api/client";
import type { Quantity, Style } from "../api/types";
import type { Raw } from "../draft/raw";
import { type Kind, unitOf } from "./show";

/** Let the core read typed text; what it cannot read comes back with its place. */
export async function parseTyped(text: string, kind: Kind, style: Style): Promise<Quantity | Raw> {
  try {
    return await got(
      api.POST("/api/units/parse", {
        body: { text, kind: kind === "thickness" ? "length" : kind, unit: unitOf(kind, style) },
      }),
    );
  } catch (error) {
    const refused = error instanceof Refused ? error : null;
    const position = typeof refused?.body.position === "number" ? refused.body.position : null;
    const message = error instanceof Error ? error.message : "it could not be read";
    return { text, message, position, acceptable: refused?.problems[0]?.expected ?? "" };
  }
}
