/** Bright paper or layout dye: the choice is kept in this browser, the system's wish is the default. */
export type Mode = "paper" | "dye";
const KEY = "nodulant-mode";

export function savedMode(): Mode {
  const kept = localStorage.getItem(KEY);
  if (kept === "paper" || kept === "dye") return kept;
  return matchMedia("(prefers-color-scheme: dark)").matches ? "dye" : "paper";
}

/** How close things stand: as on a desk, or large enough for a gloved thumb. */
export type Density = "desk" | "gloves";
const DENSITY_KEY = "nodulant-density";

export const savedDensity = (): Density => (localStorage.getItem(DENSITY_KEY) === "gloves" ? "gloves" : "desk");

export function applyDensity(density: Density): void {
  localStorage.setItem(DENSITY_KEY, density);
  document.documentElement.dataset.density = density;
}

export function applyMode(mode: Mode): void {
  localStorage.setItem(KEY, mode);
  document.documentElement.classList.toggle("dark", mode === "dye");
  document.documentElement.classList.toggle("light", mode === "paper");
}
