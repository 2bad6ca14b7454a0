import { type ComponentType, lazy, useState } from "react";
import type { JobHead } from "../api/types";

type Of = { job: JobHead };

const parts: (() => Promise<unknown>)[] = [];

/** A part of the bench in a file of its own, fetched when it is opened or when the bench has nothing else to do. */
export function ahead(load: () => Promise<{ default: ComponentType<Of> }>) {
  let here: ComponentType<Of> | undefined;
  let loading: ReturnType<typeof load> | undefined;
  const once = () => {
    loading ??= load().then((part) => {
      here = part.default;
      return part;
    });
    return loading;
  };
  parts.push(once);
  const Fetched = lazy(once);
  /** What is here already is drawn at once; what is not is waited for. */
  return function Part({ job }: Of) {
    const [Own] = useState(() => here ?? Fetched);
    return <Own job={job} />;
  };
}

/** Fetch one part after the other while nothing else is to be done, so that a stage opens at once. */
export function startFetchingAhead() {
  let next = 0;
  let waiting = 0;
  const step = () => {
    waiting = window.setTimeout(() => void parts[next++]?.().then(step, () => undefined), 60);
  };
  waiting = window.setTimeout(step, 1500);
  return () => window.clearTimeout(waiting);
}
