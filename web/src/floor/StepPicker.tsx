import { Box, Text } from "@chakra-ui/react";
import { isDone } from "./after";
import { Over } from "./Big";
import { named } from "./SignSheet";
import type { FloorStep } from "./types";

const WORDS = { done: "done", overridden: "passed", open: "open", waiting: "waits" } as const;

/** All steps by phase: one is tapped to be shown. */
export function StepPicker(props: {
  steps: readonly FloorStep[];
  now: string;
  show: (id: string) => void;
  close: () => void;
}) {
  const { steps, now, show, close } = props;
  return (
    <Over title={`${steps.filter(isDone).length} of ${steps.length} done`} close={close}>
      <Box as="ol" listStyleType="none" ps="0">
        {steps.map((s, i) => (
          <Box as="li" key={s.id}>
            {steps[i - 1]?.phase !== s.phase && (
              <Text fontFamily="heading" fontSize="22px" mt="3" color="faint">
                {s.phase}
              </Text>
            )}
            <button type="button" className="floor-row" aria-current={s.id === now} onClick={() => show(s.id)}>
              <span>
                {named(s)}
                {s.work && <small>{s.work}</small>}
              </span>
              <span className={`floor-${s.status}`}>{WORDS[s.status]}</span>
            </button>
          </Box>
        ))}
      </Box>
    </Over>
  );
}
