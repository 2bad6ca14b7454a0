import { useQuery } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import { api, got } from "../api/client";
import type { components } from "../api/schema";
import type { Style } from "../api/types";
import { type Kind, showQuantity } from "../units/show";
import { reasonOf } from "./reason";

type LiveReading = components["schemas"]["LiveReading"];
export type Live = {
  /** Whether the instrument can be asked at all. */
  there: boolean;
  now: LiveReading | null;
  trouble: string;
  zero: () => void;
};
/** Where an instrument is held: the reading's id and plan, or one mark and the other of a length. */
export type Held = components["schemas"]["HeldBody"];
const EVERY_MS = 400;
/** So many answers in a row have to agree before it is at rest. */
const SAME = 4;
const MM_PER_INCH = 25.4;

/** What an instrument shows, as it would be typed: a length in decimals, finer than a tape's marks. */
export function asShown(value: number, kind: Kind, style: Style): string {
  if (kind !== "length" && kind !== "thickness") return showQuantity(value, kind, style);
  return style === "mm" ? `${value.toFixed(2)} mm` : `${(value / MM_PER_INCH).toFixed(3)}"`;
}

/** The instruments that the shop's server can ask; none without a network. */
export function useAttached(): ReadonlySet<string> {
  const found = useQuery({
    queryKey: ["instruments"],
    queryFn: () => got(api.GET("/api/instruments")),
    staleTime: 60_000,
    retry: false,
  });
  return new Set(found.data?.map((i) => i.id));
}

/** What an instrument reads while it is held somewhere: asked again and again, also after it fell silent. */
export function useLive(instrument: string, held: Held | null): Live {
  const there = useAttached().has(instrument);
  const [now, setNow] = useState<LiveReading | null>(null);
  const [trouble, setTrouble] = useState("");
  const body = held && JSON.stringify(held);
  useEffect(() => {
    setNow(null);
    setTrouble("");
    if (!body || !there) return;
    let over = false;
    let last: number[] = [];
    const ask = async () => {
      const params = { path: { id_: instrument } };
      try {
        const read = await got(api.POST("/api/instruments/{id_}/read", { params, body: JSON.parse(body) as Held }));
        if (over) return;
        last = [...last, read.value].slice(-SAME);
        const rests = last.length === SAME && Math.max(...last) - Math.min(...last) <= read.resolution;
        setNow({ ...read, settled: read.settled && rests });
        setTrouble("");
      } catch (error) {
        if (over) return;
        last = [];
        setNow(null);
        setTrouble(reasonOf(error));
      }
      setTimeout(() => over || void ask(), EVERY_MS);
    };
    void ask();
    return () => {
      over = true;
    };
  }, [instrument, body, there]);
  const zero = () => {
    void api
      .POST("/api/instruments/{id_}/zero", { params: { path: { id_: instrument } } })
      .catch((error: unknown) => setTrouble(reasonOf(error)));
  };
  return { there, now, trouble, zero };
}
