import { Box } from "@chakra-ui/react";
import { useState } from "react";
import { Act, PlainChoice } from "../fields/controls";
import { PlainQuantity, PlainWords } from "../fields/plain";
import type { Write } from "./WeldRecordGroup";

const COATS = [
  ["0", "bare metal, cleaned"],
  ["1", "one coat"],
  ["2", "two coats"],
  ["3", "three coats"],
] as const;

/** Coats on a zone, with the film where it was measured. */
export function PaintForm({ write }: { write: Write }) {
  const [open, setOpen] = useState(false);
  const [zone, setZone] = useState("");
  const [coats, setCoats] = useState("2");
  const [film, setFilm] = useState<number | null>(null);
  const [looked, setLooked] = useState("");
  if (!open) return <Act onClick={() => setOpen(true)}>Write down paint</Act>;
  const keep = async () => {
    if (!(await write({ kind: "paint", zone, coats: Number(coats), film_um: film, looked_by: looked }))) return;
    setZone("");
    setOpen(false);
  };
  return (
    <Box display="grid" gap="2" py="1">
      <PlainWords label="Where" value={zone} take={setZone} />
      <PlainChoice free label="What is on it" value={coats} choices={COATS} choose={setCoats} />
      <PlainQuantity kind="number" label="Film, micrometres" value={film} take={setFilm} />
      <PlainWords label="Looked at by" value={looked} take={setLooked} />
      <Act main off={!zone.trim()} onClick={() => void keep()}>
        Write it down
      </Act>
    </Box>
  );
}
