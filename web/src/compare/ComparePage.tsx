import { Box, Flex, Heading, Text } from "@chakra-ui/react";
import { useQuery } from "@tanstack/react-query";
import { Link, useParams, useSearchParams } from "react-router";
import { api, got } from "../api/client";
import type { SideBySide, Style } from "../api/types";
import { OptionDrawings } from "./OptionDrawings";
import { Rates } from "./Rates";
import { RatioTable } from "./RatioTable";

const MOST = 4;

/** Two to four options of a job: one table, and their left rails on one scale. */
export default function ComparePage() {
  const jobId = Number(useParams().jobId);
  const [search, setSearch] = useSearchParams();
  const job = useQuery({
    queryKey: ["job", jobId],
    queryFn: () => got(api.GET("/api/jobs/{job_id}", { params: { path: { job_id: jobId } } })),
  });
  const options = job.data?.options ?? [];
  const asked = (search.get("options") ?? "").split(",").map(Number);
  const known = options.filter((o) => asked.includes(o.id)).map((o) => o.id);
  const chosen = known.length ? known : options.slice(0, MOST).map((o) => o.id);
  const compared = useQuery({
    queryKey: ["compare", jobId, chosen, job.data?.shop],
    enabled: chosen.length >= 2,
    gcTime: 0,
    queryFn: () => got(api.POST("/api/compare", { body: { job_id: jobId, option_ids: chosen } })),
  });
  const turn = (id: number) => {
    const next = chosen.includes(id) ? chosen.filter((o) => o !== id) : [...chosen, id].slice(0, MOST);
    setSearch({ options: next.join(",") });
  };
  return (
    <Box as="main" maxW="76rem" mx="auto" p="5">
      <Flex gap="4" align="baseline" wrap="wrap">
        <Heading as="h1" size="2xl">
          Options side by side
        </Heading>
        <Text color="faint" flex="1">
          {job.data?.name}: the newest revision of each
        </Text>
        <Link to={`/jobs/${jobId}`}>
          <Text fontWeight="600" color="chalk">
            Back to the bench
          </Text>
        </Link>
      </Flex>
      <Flex gap="4" my="3" wrap="wrap" role="group" aria-label="Options to compare">
        {options.map((o) => (
          <Flex as="label" key={o.id} gap="2" align="center" minH="32px">
            <input
              type="checkbox"
              checked={chosen.includes(o.id)}
              disabled={!chosen.includes(o.id) && chosen.length >= MOST}
              onChange={() => turn(o.id)}
              style={{ width: 18, height: 18, accentColor: "var(--chakra-colors-chalk)" }}
            />
            {o.name}
          </Flex>
        ))}
      </Flex>
      {job.data && options.length < 2 && (
        <Text>This job has one option. Make another under More: New option from this.</Text>
      )}
      {options.length >= 2 && chosen.length < 2 && <Text>Choose two options or more.</Text>}
      {compared.isError && <Text role="alert">{compared.error.message}</Text>}
      {job.data && compared.data && chosen.length >= 2 && <Both data={compared.data} style={job.data.shop.style} />}
      {job.data && <Rates job={job.data} />}
    </Box>
  );
}

function Both({ data, style }: { data: SideBySide; style: Style }) {
  return (
    <>
      <OptionDrawings data={data} />
      <RatioTable data={data} style={style} />
    </>
  );
}
