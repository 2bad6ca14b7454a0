import { Box, Button, Flex, Text } from "@chakra-ui/react";
import { type ReactNode, useEffect, useRef } from "react";

/** A button for a gloved thumb. */
export function Big(props: {
  children: ReactNode;
  onClick: () => void;
  kind?: "main" | "plain" | "stop";
  off?: boolean;
  grow?: boolean;
  pressed?: boolean;
  label?: string;
}) {
  const { kind = "plain" } = props;
  const looks = {
    main: { bg: "chalk", color: "onchalk", borderColor: "chalk" },
    plain: { bg: "sheet", color: "ink", borderColor: "edge" },
    stop: { bg: "sheet", color: "removed", borderColor: "removed" },
  }[kind];
  return (
    <Button
      {...looks}
      className={kind === "main" ? "floor-main" : "floor-big"}
      variant="outline"
      height="auto"
      px="3"
      py="1"
      whiteSpace="normal"
      lineHeight="1.15"
      fontSize={kind === "main" ? "24px" : "20px"}
      fontWeight="600"
      borderWidth="2px"
      flex={props.grow ? "1 1 0" : undefined}
      disabled={props.off}
      aria-pressed={props.pressed}
      aria-label={props.label}
      onClick={props.onClick}
    >
      {props.children}
    </Button>
  );
}

/** What lies over the step until it is answered or closed; what is behind it is out of reach. */
export function Over({ title, close, children }: { title: string; close: () => void; children: ReactNode }) {
  const own = useRef<HTMLDialogElement>(null);
  useEffect(() => own.current?.showModal(), []);
  return (
    <dialog ref={own} className="floor-over" aria-label={title} onClose={close}>
      <Flex direction="column" gap="3" p="3" minH="100%">
        <Flex justify="space-between" align="start" gap="2">
          <Text as="h2" fontFamily="heading" fontSize="26px" lineHeight="1.1" fontWeight="600">
            {title}
          </Text>
          <Big onClick={close}>Back</Big>
        </Flex>
        {children}
      </Flex>
    </dialog>
  );
}

/** One line or a few, typed with the phone's own keys. */
export function Line(props: { label: string; value: string; take: (value: string) => void; most?: number }) {
  return (
    <Box as="label" display="block" fontSize="20px">
      {props.label}
      <textarea
        className="floor-line"
        rows={2}
        maxLength={props.most ?? 120}
        value={props.value}
        onChange={(e) => props.take(e.target.value.replace(/\n/g, " "))}
      />
    </Box>
  );
}
