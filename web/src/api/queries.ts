import { QueryClient } from "@tanstack/react-query";

/** What was asked of the server and may be asked again. */
export const queries = new QueryClient({
  defaultOptions: { queries: { retry: false, refetchOnWindowFocus: false } },
});
