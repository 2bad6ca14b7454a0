import { create } from "zustand";

/** Typed text that is not (yet) a value, by field pointer: it outlives the field, so nothing typed is lost. */
export type Raw = { text: string; message: string; position: number | null; acceptable: string };

export const useRaw = create<{ texts: Record<string, Raw> }>(() => ({ texts: {} }));

export function keepRaw(pointer: string, raw: Raw): void {
  useRaw.setState((s) => ({ texts: { ...s.texts, [pointer]: raw } }));
}

export function dropRaw(pointer: string): void {
  useRaw.setState((s) => {
    const { [pointer]: _gone, ...rest } = s.texts;
    return { texts: rest };
  });
}
