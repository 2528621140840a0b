import { useState } from "react";
import { count } from "./amounts";

interface Props {
  /** What a row is: "invoice". */
  of: string;
  /** Where the service writes the table: CSV, or tabbed for "as=tsv". */
  address: string;
}

/** Hands a table to a spreadsheet, which takes it cell by cell, figures as numbers: by the clipboard, or as a file. */
export function CopyTable({ of, address }: Props) {
  const [said, setSaid] = useState("");
  const separator = address.includes("?") ? "&" : "?";
  async function copy() {
    try {
      const answer = await fetch(`${address}${separator}as=tsv`);
      const tabbed = await answer.text();
      if (!answer.ok) {
        throw new Error();
      }
      await navigator.clipboard.write([
        new ClipboardItem({
          "text/plain": new Blob([tabbed], { type: "text/plain" }),
          "text/html": new Blob([markup(tabbed)], { type: "text/html" }),
        }),
      ]);
      setSaid(`${count(tabbed.split("\n").length - 1, of)} copied`);
    } catch {
      setSaid("This could not be copied; take the CSV file.");
    }
  }
  return (
    <span>
      <span className="soft" role="status">
        {said}
      </span>{" "}
      <button type="button" className="plain" onClick={copy}>
        Copy for a spreadsheet
      </button>
      {" · "}
      <a href={address} download>
        CSV
      </a>
      {" · "}
      <a href={`${address}${separator}as=xlsx`} download>
        XLSX
      </a>
    </span>
  );
}

/** Tabbed lines as an HTML table, whose cells spreadsheets take as they are. */
function markup(tabbed: string): string {
  const rows = tabbed
    .split("\n")
    .map((line) => `<tr><td>${escaped(line).replaceAll("\t", "</td><td>")}</td></tr>`);
  return `<table>${rows.join("")}</table>`;
}

const escaped = (text: string) =>
  text.replace(/[&<>]/g, (letter) => (letter === "&" ? "&amp;" : letter === "<" ? "&lt;" : "&gt;"));
