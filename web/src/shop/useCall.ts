import { useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { messageOf } from "../cut/useSearch";

/** Do something on the server, ask again for what it changes, and keep why it was refused. */
export function useCall(keys: readonly string[]) {
  const queries = useQueryClient();
  const [trouble, setTrouble] = useState("");
  const call = async (act: () => Promise<unknown>) => {
    setTrouble("");
    try {
      await act();
      await Promise.all(keys.map((key) => queries.invalidateQueries({ queryKey: [key] })));
    } catch (error) {
      setTrouble(messageOf(error));
    }
  };
  return { call, trouble };
}
