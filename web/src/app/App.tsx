import { Box, Text } from "@chakra-ui/react";
import { useQuery } from "@tanstack/react-query";
import { lazy, Suspense } from "react";
import { Route, Routes } from "react-router";
import { api, got } from "../api/client";
import { JobList } from "./JobList";
import { SignIn } from "./SignIn";
import { SessionContext } from "./session";

const ComparePage = lazy(() => import("../compare/ComparePage"));
const Join = lazy(async () => ({ default: (await import("../shop/ByLink")).Join }));
const NewPassword = lazy(async () => ({ default: (await import("../shop/ByLink")).NewPassword }));
const ShopPage = lazy(() => import("../shop/ShopPage"));
const PracticePage = lazy(() => import("../practice/PracticePage"));
const FloorPage = lazy(() => import("../floor/FloorPage"));
const Bench = lazy(() => import("../bench/Bench"));

/** A link opens what it is for; all else is for who is signed in. */
export function App() {
  return (
    <Suspense fallback={<Notice text="Opening" />}>
      <Routes>
        <Route path="/join/:token" element={<Join />} />
        <Route path="/password/:token" element={<NewPassword />} />
        <Route path="*" element={<Inside />} />
      </Routes>
    </Suspense>
  );
}

/** Who is there decides what opens: sign-in, the list of jobs, or the bench of one job. */
function Inside() {
  const session = useQuery({ queryKey: ["session"], queryFn: () => got(api.GET("/api/session")) });
  if (session.isError) return <Notice text={`${session.error.message}. Is the server running?`} />;
  if (!session.data) return <Notice text="Opening the shop" />;
  if (!session.data.user) return <SignIn session={session.data} />;
  return (
    <SessionContext.Provider value={session.data}>
      <Suspense fallback={<Notice text="Laying out the bench" />}>
        <Routes>
          <Route path="/jobs/:jobId" element={<Bench />} />
          <Route path="/jobs/:jobId/floor" element={<FloorPage />} />
          <Route path="/jobs/:jobId/compare" element={<ComparePage />} />
          <Route path="/practice" element={<PracticePage />} />
          <Route path="/shop" element={<ShopPage />} />
          <Route path="*" element={<JobList />} />
        </Routes>
      </Suspense>
    </SessionContext.Provider>
  );
}

function Notice({ text }: { text: string }) {
  return (
    <Box p="10" role="status">
      <Text>{text}</Text>
    </Box>
  );
}
