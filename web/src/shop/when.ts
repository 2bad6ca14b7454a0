/** A day and time as the person's own machine writes them. */
export const WHEN = new Intl.DateTimeFormat(undefined, { dateStyle: "medium", timeStyle: "short" });
