import { Text } from "@chakra-ui/react";
import type { AxleTravel } from "../api/types";
import { usePick } from "../draft/store";
import { showFigure } from "../units/figure";
import { useAxlePart } from "./useAxle";

type Props = { facts: AxleTravel["facts"] | undefined };

/** Figures of the suspension that do not change through travel. */
export function TravelFacts() {
  return <Facts facts={useAxlePart("facts")} />;
}

/** Figures with their words, one a line. */
export function Facts({ facts }: Props) {
  const { style } = usePick("style");
  if (!facts?.length) return null;
  return (
    <>
      {facts.map(({ name, value, unit, words }) => (
        <Text key={name} fontSize="14px" my="1">
          {name}: <b>{showFigure(value, unit, style)}</b> <span className="row-tail">{words}</span>
        </Text>
      ))}
    </>
  );
}
