import { Flex, Input, type InputProps, Text } from "@chakra-ui/react";

type Props = Omit<InputProps, "size"> & {
  label: string;
  /** The label is only spoken. */
  bare?: boolean;
  wrong?: boolean;
  /** Nobody measured what stands there: slanted ink and a broken edge, and the word for who cannot see it. */
  assumed?: boolean;
};

/** A labelled line of text, as every field of the bench looks. */
export function TextBox({ label, bare = false, wrong = false, assumed = false, ...rest }: Props) {
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
        borderColor={wrong ? "removed" : "edge"}
        fontSize="15px"
        fontVariantNumeric="tabular-nums"
        borderStyle={assumed ? "dashed" : "solid"}
        fontStyle={assumed ? "italic" : "normal"}
        color={assumed ? "touch" : "ink"}
        title={assumed ? "assumed, not measured: type it, or press Enter where it is so" : undefined}
        aria-description={assumed ? "assumed, not measured" : undefined}
        aria-invalid={wrong}
        aria-label={bare ? label : undefined}
        {...rest}
      />
    </Flex>
  );
}
