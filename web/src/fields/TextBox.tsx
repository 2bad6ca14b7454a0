import { Flex, Input, type InputProps, Text } from "@chakra-ui/react";

type Props = Omit<InputProps, "size"> & {
  label: string;
  /** The label is only spoken. */
  bare?: boolean;
  wrong?: boolean;
};

/** A labelled line of text, as every field of the bench looks. */
export function TextBox({ label, bare = false, wrong = false, ...rest }: Props) {
  return (
    <Flex as="label" direction="column" fontSize="14px">
      {!bare && (
        <Text as="span" color="faint">
          {label}
        </Text>
      )}
      <Input
        size="sm"
        height="34px"
        px="2"
        bg="sheet"
        borderColor={wrong ? "removed" : "rule"}
        fontSize="15px"
        fontVariantNumeric="tabular-nums"
        aria-invalid={wrong}
        aria-label={bare ? label : undefined}
        {...rest}
      />
    </Flex>
  );
}
