import { Box, Flex, Text } from "@chakra-ui/react";
import { useQueryClient } from "@tanstack/react-query";
import { useNavigate } from "react-router";
import { api, got } from "../api/client";
import type { JobHead } from "../api/types";
import { messageOf } from "../cut/useSearch";
import { Act } from "../fields/controls";
import { forget, type Kept, remember } from "./kept";
import { type Stray, usePick } from "./store";

const WHEN = new Intl.DateTimeFormat(undefined, { dateStyle: "medium", timeStyle: "short" });

/** Unsaved work that was found on opening and is not on the bench: each is kept as an option, or thrown away. */
export function Strays({ job }: { job: JobHead }) {
  const { strays, optionId, person, base, put } = usePick("strays", "optionId", "person", "base", "put");
  const queries = useQueryClient();
  const go = useNavigate();
  if (strays.length === 0) return null;
  const without = (stray: Stray) => put({ strays: strays.filter((s) => s !== stray) });
  const tried = async (act: () => Promise<void>) => {
    try {
      await act();
    } catch (error) {
      put({ notice: messageOf(error) });
    }
  };
  const keep = (stray: Stray) =>
    tried(async () => {
      const option = stray.from === "browser" ? await branched(stray.kept) : await fromDevice(stray.id);
      if (stray.from === "browser" && stray.alsoAt !== null) await gone(stray.alsoAt);
      without(stray);
      await queries.invalidateQueries({ queryKey: ["job", job.id] });
      go(`/jobs/${job.id}?option=${option.id}`);
    });
  /** The design becomes an option; its readings come along as unsaved ones, on the survey that they were typed on. */
  const branched = async (kept: Kept) => {
    const name = `${job.options.find((o) => o.id === optionId)?.name ?? "Work"}, ${WHEN.format(new Date(kept.at))}`;
    const body = { design: kept.draft.design, name };
    const params = { path: { option_id: optionId } };
    const option = await got(api.POST("/api/options/{option_id}/branch", { params, body }));
    const survey = { base: kept.surveyBase, survey: kept.draft.survey };
    const both = await got(
      api.POST("/api/jobs/{job_id}/survey/merge", { params: { path: { job_id: job.id } }, body: survey }),
    );
    const draft = { design: kept.draft.design, survey: both.survey };
    remember(person, option.id, { base: 1, surveyBase: both.head, draft });
    forget(person, optionId, kept.tab);
    return option;
  };
  const fromDevice = (id: number) =>
    got(
      api.POST("/api/options/{option_id}/drafts/{draft_id}/keep", {
        params: { path: { option_id: optionId, draft_id: id } },
      }),
    );
  const gone = (id: number) => {
    const params = { path: { option_id: optionId, draft_id: id } };
    return api.DELETE("/api/options/{option_id}/drafts/{draft_id}", { params });
  };
  const drop = (stray: Stray) =>
    tried(async () => {
      if (stray.from === "browser") forget(person, optionId, stray.kept.tab);
      const id = stray.from === "browser" ? stray.alsoAt : stray.id;
      if (id !== null) await gone(id);
      without(stray);
    });
  return (
    <Box role="alert" bg="sheet" borderBottomWidth="1px" borderColor="rule" px="3" py="1">
      {strays.map((stray) => (
        <Flex key={keyOf(stray)} gap="3" align="center" wrap="wrap">
          <Text fontSize="14px">{told(stray, base)}</Text>
          <Act onClick={() => void keep(stray)}>Keep it as an option</Act>
          <Act onClick={() => void drop(stray)}>Throw it away</Act>
        </Flex>
      ))}
    </Box>
  );
}

const keyOf = (stray: Stray) => (stray.from === "browser" ? stray.kept.tab : String(stray.id));

function told(stray: Stray, head: number): string {
  if (stray.from === "device")
    return stray.at === null
      ? `Your unsaved work, made on revision ${stray.base}: someone saved since.`
      : `Your unsaved work, not of this tab, kept on the server ${WHEN.format(new Date(stray.at))}, made on revision ${stray.base}.`;
  const { at, base } = stray.kept;
  const why = base < head ? "someone saved since" : "not what is on the bench";
  return `Unsaved work of this browser, ${WHEN.format(new Date(at))}, made on revision ${base}: ${why}.`;
}
