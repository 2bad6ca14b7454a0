import { Text } from "@chakra-ui/react";
import { usePick } from "../draft/store";
import { showLength } from "../units/show";
import { useAxlePart } from "./useAxle";

/** Figures of the suspension that do not change through travel. */
export function Facts() {
  const facts = useAxlePart("facts");
  const { style } = usePick("style");
  if (!facts?.length) return null;
  return (
    <>
      {facts.map(({ name, value, unit, words }) => (
        <Text key={name} fontSize="14px" my="1">
          {name}:{" "}
          <b>
            {unit === "mm" ? showLength(value, style) : `${Number(value.toPrecision(3)).toLocaleString("en")} ${unit}`}
          </b>{" "}
          <span className="row-tail">{words}</span>
        </Text>
      ))}
    </>
  );
}
