import { useEffect, useLayoutEffect, useRef } from "react";

export type Moves = { clientX: number; clientY: number; timeStamp: number };

/** Moves of the pointer as they come, not with the next frame, where the browser tells them; ``stop`` ends it. */
export function useRawMoves(move: (event: Moves) => void) {
  const newest = useRef(move);
  useLayoutEffect(() => {
    newest.current = move;
  });
  const stop = useRef(() => {});
  useEffect(() => () => stop.current(), []);
  const from = (element: Element) => {
    stop.current();
    const told = (event: Event) => newest.current(event as globalThis.PointerEvent);
    element.addEventListener("pointerrawupdate", told);
    stop.current = () => element.removeEventListener("pointerrawupdate", told);
  };
  return { known: "onpointerrawupdate" in window, from, stop: () => stop.current() };
}
