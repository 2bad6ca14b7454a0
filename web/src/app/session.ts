import { useQueryClient } from "@tanstack/react-query";
import { createContext, useContext } from "react";
import { api } from "../api/client";
import type { Session } from "../api/types";
import { forgetKept } from "./offline";

export const SessionContext = createContext<Session | null>(null);

/** The signed-in person; fails loudly outside the provider. */
export function useSession(): Session {
  const session = useContext(SessionContext);
  if (!session) throw new Error("useSession needs SessionContext");
  return session;
}

/** What this person may do on the bench. */
export function useMay(): { design: boolean; log: boolean; decide: boolean; owns: boolean } {
  const { role } = useSession();
  return { design: role === "owner", log: role !== "reader", decide: role === "owner", owns: role === "owner" };
}

/** Become someone else: everything that was asked for as the old person is forgotten. */
export function useSwitchPerson(): (name: string | null) => Promise<void> {
  const queries = useQueryClient();
  return async (name) => {
    if (name) await api.POST("/api/session/switch", { body: { name } });
    else await api.POST("/api/session/sign-out");
    forgetKept();
    await queries.resetQueries();
  };
}
