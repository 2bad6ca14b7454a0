import { useQuery } from "@tanstack/react-query";
import { api, got } from "./client";
import type { Catalogue } from "./types";

const NOTHING: Catalogue = {
  mechanisms: [],
  steels: [],
  bolt_sizes: [],
  bolt_grades: [],
  cases: [],
  reads: {},
  met: {},
  saws_mm: [],
  pipes: [],
  forms: [],
  instruments: [],
};

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

/** Bolt sizes and grades; the core refuses a grade that is not made in a size's thread. */
export function useBoltChoices() {
  const { bolt_sizes, bolt_grades } = useCatalogue();
  const same = (id: string) => [id, id] as const;
  return { sizes: bolt_sizes.map(same), grades: bolt_grades.map(same) };
}
