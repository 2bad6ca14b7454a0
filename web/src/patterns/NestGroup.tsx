import { Box, Flex, Text } from "@chakra-ui/react";
import { useEffect, useState } from "react";
import { api, got, save } from "../api/client";
import type { components } from "../api/schema";
import type { JobHead } from "../api/types";
import { SearchBox } from "../cut/SearchBox";
import { messageOf, useSearch } from "../cut/useSearch";
import { useBench, usePick } from "../draft/store";
import { Act } from "../fields/controls";
import { showLength } from "../units/show";
import { keepRack, RackFields, unused } from "./RackFields";
import type { Offcut } from "./stockText";
import { type NestPlan, type Of, useNest, useOwnNest } from "./useNest";
import { usePatterns } from "./usePatterns";

type TableAnswer = components["schemas"]["TableAnswer"];

/** Every plate laid out on offcuts and sheets by its true outline, and the sheets as files. */
export function NestGroup({ job }: { job: JobHead }) {
  const search = useSearch("/api/find/nest");
  const { jobId, optionId } = usePick("jobId", "optionId");
  const draft = useBench((s) => s.history.now);
  const take = useNest((s) => s.take);
  const own = useOwnNest();
  const of = { option: optionId, draft, rack: job.shop.rack };
  const found = search.answer?.nest;
  // biome-ignore lint/correctness/useExhaustiveDependencies: a new answer is taken once
  useEffect(() => void (found && take(found, search.asked as Of)), [found]);
  return (
    <SearchBox
      title="Sheets"
      ask="Lay the plates out"
      search={search}
      counted="s"
      find={() => void search.find({ job_id: jobId, ...draft }, of)}
      stock={<RackFields job={job} />}
    >
      {own && <Laid job={job} plan={own.plan} stale={own.of.draft !== draft || own.of.rack !== job.shop.rack} />}
    </SearchBox>
  );
}

function Laid({ job, plan, stale }: { job: JobHead; plan: NestPlan; stale: boolean }) {
  const { optionId, style } = usePick("optionId", "style");
  const { sheet: chosen, show } = useNest();
  const [told, setTold] = useState("");
  const past = plan.sheets.map((s) => s.left).filter((left) => left != null);
  const used = new Set(plan.sheets.map((s) => s.offcut_id));
  const torch = usePatterns((s) => s.torch);
  const asked = { plan, torch, unit: style === "mm" ? ("mm" as const) : ("in" as const) };
  const files = async () => {
    try {
      await save(`/api/options/${optionId}/nest.zip`, asked);
      setTold("");
    } catch (error) {
      setTold(messageOf(error));
    }
  };
  const [looked, setLooked] = useState<TableAnswer[]>([]);
  const look = async () => {
    try {
      const params = { path: { option_id: optionId } };
      setLooked(await got(api.POST("/api/options/{option_id}/table", { params, body: asked })));
      setTold("");
    } catch (error) {
      setTold(messageOf(error));
    }
  };
  const keep = async () => {
    const offcuts: Offcut[] = job.shop.rack.offcuts.filter((o) => !used.has(o.id));
    for (const left of past) offcuts.push({ ...left, id: unused(offcuts) });
    try {
      await keepRack(job, { ...job.shop.rack, offcuts });
      setTold("The rack holds what is left; the offcuts that were used are out of it.");
    } catch (error) {
      setTold(messageOf(error));
    }
  };
  return (
    <>
      {stale && <Text color="removed">The design or the rack has changed since: lay them out again.</Text>}
      <Text>
        {plan.pieces - plan.left_out.length} of {plan.pieces} plates, {share(plan)} of the metal up to where they reach
        {plan.price != null && `; sheets cost ${plan.price} ${job.shop.rates.currency}`}
      </Text>
      {plan.sheets.map((sheet, i) => (
        <Flex
          // biome-ignore lint/suspicious/noArrayIndexKey: sheets of one plan keep their order
          key={i}
          as="button"
          width="100%"
          minH="36px"
          align="center"
          textAlign="start"
          borderBottomWidth="1px"
          borderColor="rule"
          fontWeight={i === chosen ? "600" : "400"}
          aria-pressed={i === chosen}
          onClick={() => show(i === chosen ? null : i)}
        >
          {sheet.name}: {sheet.pieces.length} plates{" "}
          {sheet.offcut_id == null ? `up to ${showLength(sheet.used_long_mm, style)} of` : "on"}{" "}
          {showLength(sheet.long_mm, style)} x {showLength(sheet.wide_mm, style)}
        </Flex>
      ))}
      {(plan.apart ?? []).length > 0 && (
        <Text color="removed">On several sheets all the same, one does not hold it: {plan.apart?.join(", ")}.</Text>
      )}
      {plan.left_out.map((one) => (
        <Text key={`${one.name} ${one.side}`} color="removed">
          {one.name}, {one.side}: {one.words}.
        </Text>
      ))}
      <Flex gap="2" wrap="wrap" mt="2">
        <Act onClick={() => void files()}>Sheets as DXF, zipped</Act>
        <Act hint="a simulated one ships with Nodulant" onClick={() => void look()}>
          Ask the cutting table
        </Act>
        {past.length > 0 && !stale && (
          <Act hint="once they are cut" onClick={() => void keep()}>
            Cut: keep what is left
          </Act>
        )}
      </Flex>
      {looked.map((answer) => (
        <Text key={answer.drawing} fontSize="14px" color={answer.taken ? "ink" : "removed"}>
          {answer.drawing}:{" "}
          {answer.taken
            ? `taken: ${answer.pierces} pierces, ${showLength(answer.cut_mm, style)} of cut, ${answer.minutes.toFixed(0)} minutes`
            : `not taken: ${answer.refused}`}
          .
        </Text>
      ))}
      <Box role="status">{told}</Box>
    </>
  );
}

const share = (plan: NestPlan) => `${Math.round((100 * plan.area_mm2) / Math.max(plan.used_mm2, 1))} %`;
