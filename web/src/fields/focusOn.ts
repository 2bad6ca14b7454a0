const PATIENCE_MS = 10_000;

/** Put the keyboard into the first field whose pointer begins so, as soon as its form is there. */
export function focusOn(pointer: string, since = performance.now()): void {
  const field = document.querySelector<HTMLElement>(`[data-field^="${pointer}"]`);
  if (field) {
    field.scrollIntoView({ block: "center" });
    field.focus();
  } else if (performance.now() - since < PATIENCE_MS) requestAnimationFrame(() => focusOn(pointer, since));
}
