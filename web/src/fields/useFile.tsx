import { useRef } from "react";

/** A hidden file picker: ``ask`` opens it, ``input`` goes into the page. The same file may be picked twice. */
export function useFile(label: string, accept: string, take: (file: File) => void) {
  const at = useRef<HTMLInputElement>(null);
  const picked = (file: File | undefined) => {
    if (file) take(file);
    if (at.current) at.current.value = "";
  };
  const input = (
    <input
      ref={at}
      type="file"
      accept={accept}
      aria-label={label}
      style={{ display: "none" }}
      onChange={(e) => picked(e.target.files?.[0])}
    />
  );
  return { ask: () => at.current?.click(), input };
}
