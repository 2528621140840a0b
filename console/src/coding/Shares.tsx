import { Button, Modal, TextInput } from "@mantine/core";
import { useState } from "react";
import type { CodedPart } from "../api/client";
import type { Correcting } from "../review/useCorrecting";
import { money, sumOf } from "../shared/amounts";
import { CodeHeadings } from "./CodeHeadings";
import { CODE_HEADINGS, CODES } from "./codes";

interface Props {
  of: string;
  address: string;
  parts: CodedPart[];
  currency: string;
  correcting: Correcting;
  close: () => void;
}

interface Share {
  key: number;
  part: string;
  codes: Record<string, string>;
}

/** Where a row's amount is parted among accounts, cost centres or projects. */
export function Shares({ of, address, parts, currency, correcting, close }: Props) {
  const [shares, setShares] = useState<Share[]>(() => beginningOf(parts));
  const change = (key: number, what: Partial<Share>) =>
    setShares(shares.map((one) => (one.key === key ? { ...one, ...what } : one)));
  const whole = sumOf(parts.map((part) => part.amount));
  const said = (all: { part: string; codes: Record<string, string> }[]) =>
    correcting.mutate({ act: "code", of: address, shares: all }, { onSuccess: close });
  const faulty = shares.some((one) => !(Number(one.part) > 0));
  return (
    <Modal opened onClose={close} title={`${of}: ${money(whole, currency)} in shares`} size="xl">
      <form
        onSubmit={(event) => {
          event.preventDefault();
          if (!faulty) {
            said(shares.map(({ part, codes }) => ({ part, codes: filled(codes) })));
          }
        }}
      >
        <table className="sheet tight">
          <thead>
            <tr>
              <th>Part</th>
              <CodeHeadings />
              <td />
            </tr>
          </thead>
          <tbody>
            {shares.map((share, at) => (
              <tr key={share.key}>
                <td>
                  <TextInput
                    size="xs"
                    w={70}
                    aria-label={`Part of share ${at + 1}`}
                    value={share.part}
                    error={!(Number(share.part) > 0)}
                    onChange={(event) => change(share.key, { part: event.currentTarget.value.trim() })}
                  />
                </td>
                {CODES.map((code) => (
                  <td key={code}>
                    <TextInput
                      size="xs"
                      aria-label={`${CODE_HEADINGS[code]} of share ${at + 1}`}
                      value={share.codes[code] ?? ""}
                      maxLength={60}
                      onChange={(event) =>
                        change(share.key, { codes: { ...share.codes, [code]: event.currentTarget.value } })
                      }
                    />
                  </td>
                ))}
                <td style={{ whiteSpace: "nowrap" }}>
                  {shares.length > 1 && (
                    <button
                      type="button"
                      className="plain"
                      onClick={() => setShares(shares.filter((one) => one.key !== share.key))}
                    >
                      Take out
                    </button>
                  )}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
        <p className="soft">
          What counts is the parts' proportion: 60 and 40 is 3 and 2. Codes left empty are those that the
          rules say.
        </p>
        {correcting.isError && (
          <p className="state held" role="alert">
            ▲ {correcting.error.message}
          </p>
        )}
        <div className="row">
          <Button size="xs" type="submit" disabled={faulty} loading={correcting.isPending}>
            Part it so
          </Button>
          <Button
            size="xs"
            variant="default"
            onClick={() => setShares([...shares, { key: nextKey(shares), part: "1", codes: {} }])}
          >
            One share more
          </Button>
          <Button size="xs" variant="default" onClick={() => said([])}>
            As the rules say
          </Button>
        </div>
      </form>
    </Modal>
  );
}

const nextKey = (shares: Share[]) => Math.max(...shares.map((one) => one.key)) + 1;

const filled = (codes: Record<string, string>) =>
  Object.fromEntries(Object.entries(codes).filter(([, code]) => code.trim() !== ""));

/** The shares that there are; two halves where the row is whole. */
function beginningOf(parts: CodedPart[]): Share[] {
  const codesOf = (part: CodedPart) =>
    Object.fromEntries(Object.entries(part.codes).map(([name, code]) => [name, code.value]));
  return parts.length > 1
    ? parts.map((part, key) => ({ key, part: part.part, codes: codesOf(part) }))
    : [0, 1].map((key) => ({ key, part: "50", codes: parts[0] ? codesOf(parts[0]) : {} }));
}
