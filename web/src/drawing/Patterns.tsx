import { paint } from "../app/theme";

/** Fills that tell added, removed and touching apart in greyscale too. */
export function Patterns() {
  return (
    <defs>
      <pattern id="fill-added" width="6" height="6" patternUnits="userSpaceOnUse">
        <rect width="6" height="6" fill={paint("added")} opacity="0.22" />
        <circle cx="3" cy="3" r="1.1" fill={paint("added")} />
      </pattern>
      <pattern id="fill-removed" width="7" height="7" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
        <path d="M0 0V7" stroke={paint("removed")} strokeWidth="2" />
      </pattern>
      <pattern id="fill-touch" width="8" height="6" patternUnits="userSpaceOnUse">
        <path d="M0 1L4 5L8 1" fill="none" stroke={paint("touch")} strokeWidth="1.6" />
      </pattern>
    </defs>
  );
}
