/** Our own button for loading a text file: any common encoding, a limit, and what is wrong said in the page. */
import { useRef } from "react";

export function FileButton({
  label,
  accept,
  most,
  tooLarge,
  take,
  refuse,
}: {
  label: string;
  accept: string;
  most: number;
  tooLarge: string;
  take: (text: string) => void | Promise<void>;
  refuse: (words: string) => void;
}) {
  const input = useRef<HTMLInputElement>(null);
  const load = async (file: File) => {
    if (file.size > most) refuse(tooLarge);
    else await take(decoded(await file.arrayBuffer()));
  };
  return (
    <>
      <button type="button" className="act" onClick={() => input.current?.click()}>
        {label}
      </button>
      <input
        ref={input}
        type="file"
        accept={accept}
        aria-label={label}
        tabIndex={-1}
        className="sr-only"
        onChange={(event) => {
          const file = event.target.files?.[0];
          if (file) void load(file);
          event.target.value = "";
        }}
      />
    </>
  );
}

/** Text of a file in UTF-8, UTF-16 with its mark, or the usual western encoding of old spreadsheets. */
export function decoded(data: ArrayBuffer): string {
  const bytes = new Uint8Array(data);
  if (bytes[0] === 0xff && bytes[1] === 0xfe) return new TextDecoder("utf-16le").decode(data);
  if (bytes[0] === 0xfe && bytes[1] === 0xff) return new TextDecoder("utf-16be").decode(data);
  try {
    return new TextDecoder("utf-8", { fatal: true }).decode(data);
  } catch {
    return new TextDecoder("windows-1252").decode(data);
  }
}
