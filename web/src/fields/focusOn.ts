const PATIENCE_MS = 10_000;
/** What had the keyboard may still be given it back within this. */
const GIVEN_BACK_MS = 150;

/** Put the keyboard into the first field whose pointer begins so, as soon as its form is there. */
export function focusOn(pointer: string, since = performance.now()): void {
  const field = document.querySelector<HTMLElement>(`[data-field^="${pointer}"]`);
  if (field) {
    const before = document.activeElement;
    field.scrollIntoView({ block: "nearest" });
    field.focus();
    setTimeout(() => document.activeElement === before && field.focus(), GIVEN_BACK_MS);
  } else if (performance.now() - since < PATIENCE_MS) requestAnimationFrame(() => focusOn(pointer, since));
}
