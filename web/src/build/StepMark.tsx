import type { Step } from "../api/types";
import { paint } from "../app/theme";

/** State of a step as a shape: waiting a thin ring, open a bold ring, done a filled block with a notch, overridden half of it. */
export function StepMark({ status }: { status: Step["status"] }) {
  return (
    <svg width="16" height="16" viewBox="0 0 16 16" aria-hidden="true" style={{ flexShrink: 0 }}>
      {status === "waiting" && <circle cx="8" cy="8" r="5" fill="none" stroke={paint("faint")} strokeDasharray="2 2" />}
      {status === "open" && <circle cx="8" cy="8" r="5" fill="none" stroke={paint("chalk")} strokeWidth="3" />}
      {status === "done" && <path d="M2 4h12v8h-4a2 2 0 0 0-4 0H2z" fill={paint("added")} />}
      {status === "overridden" && (
        <path d="M2 4h12v8h-4a2 2 0 0 0-4 0H2z" fill="none" stroke={paint("touch")} strokeWidth="1.8" />
      )}
    </svg>
  );
}
