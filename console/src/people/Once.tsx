import { CopyButton } from "@mantine/core";

/** A secret that is shown now and never again, with the way to take it along. */
export function Once({ text }: { text: string }) {
  return (
    <>
      <code style={{ overflowWrap: "anywhere" }}>{text}</code>{" "}
      <CopyButton value={text} timeout={5000}>
        {({ copied, copy }) => (
          <button type="button" className="plain" onClick={copy}>
            {copied ? "● Copied" : "Copy"}
          </button>
        )}
      </CopyButton>
    </>
  );
}
