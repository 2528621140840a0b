import { useEffect, useRef } from "react";

/** Takes pictures that are pasted anywhere on the page: an invoice that came in a chat, a part of a screen. */
export function usePasted(take: (files: File[]) => void) {
  const taking = useRef(take);
  taking.current = take;
  useEffect(() => {
    const pasted = (event: ClipboardEvent) => {
      const files = [...(event.clipboardData?.files ?? [])];
      if (files.length > 0) {
        event.preventDefault();
        taking.current(files.map(named));
      }
    };
    window.addEventListener("paste", pasted);
    return () => window.removeEventListener("paste", pasted);
  }, []);
}

/** What is cut out of a screen is called “image.png” each time; the time it was pasted tells such files apart. */
const named = (file: File) =>
  /^image\.\w+$/.test(file.name)
    ? new File([file], `pasted ${stamp(new Date())}${file.name.slice(file.name.lastIndexOf("."))}`, {
        type: file.type,
      })
    : file;

const stamp = (at: Date) =>
  `${new Date(at.getTime() - at.getTimezoneOffset() * 60_000).toISOString().slice(0, 19).replace("T", " ").replaceAll(":", ".")}`;
