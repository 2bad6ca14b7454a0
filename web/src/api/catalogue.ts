import { useQuery } from "@tanstack/react-query";
import { api, got } from "./client";
import type { Catalogue } from "./types";

const NOTHING: Catalogue = { mechanisms: [], steels: [] };

/** What the core offers to choose from: drop mechanisms and steels. */
export function useCatalogue(): Catalogue {
  const asked = useQuery({
    queryKey: ["catalogue"],
    staleTime: Number.POSITIVE_INFINITY,
    queryFn: () => got(api.GET("/api/catalogue")),
  });
  return asked.data ?? NOTHING;
}

/** Steels as choices; plates are only offered what may be welded. */
export function useSteelChoices(weldable = false): (readonly [string, string])[] {
  const { steels } = useCatalogue();
  return steels.filter((s) => !weldable || (s.weldable && s.id !== "unknown")).map((s) => [s.id, s.name] as const);
}
