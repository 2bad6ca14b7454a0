import { api, got, Refused } from "../api/client";
import type { Quantity, Style } from "../api/types";
import type { Raw } from "../draft/raw";
import { type Kind, unitOf } from "./show";

const pending = new Set<Promise<unknown>>();

/** Whether typed text is still being read. */
export const isReading = () => pending.size > 0;

/** Resolves when all of it has been read and what it changes has been drawn. */
export async function allRead(): Promise<void> {
  while (pending.size > 0) await Promise.allSettled(pending);
  for (let i = 0; i < 2; i += 1) await new Promise((done) => setTimeout(done));
}

/** Let the core read typed text; what it cannot read comes back with its place. */
export function parseTyped(text: string, kind: Kind, style: Style): Promise<Quantity | Raw> {
  const reading = read(text, kind, style);
  pending.add(reading);
  void reading.finally(() => pending.delete(reading));
  return reading;
}

async function read(text: string, kind: Kind, style: Style): Promise<Quantity | Raw> {
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
