import { useQuery } from "@tanstack/react-query";
import { api, got } from "../api/client";
import type { Term } from "../api/types";

const NONE: Term[] = [];

/** The words of the trade, asked for once. */
export function useTerms(wanted = true): Term[] {
  const asked = useQuery({
    queryKey: ["glossary"],
    staleTime: Number.POSITIVE_INFINITY,
    enabled: wanted,
    queryFn: () => got(api.GET("/api/glossary")),
  });
  return asked.data ?? NONE;
}

/** The word that explains a field: the nearest name wins, as in the core. ``names`` is the field's path, without numbers. */
export function termFor(terms: readonly Term[], kind: string, names: readonly string[]): Term | undefined {
  const name = names.at(-1) ?? "";
  for (const key of [`${kind}:${name}`, `${names.at(-2)}.${name}`, name]) {
    const found = terms.find((t) => t.fields?.includes(key));
    if (found) return found;
  }
  return undefined;
}
