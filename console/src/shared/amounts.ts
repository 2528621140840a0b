/** Groups an amount's whole part by threes: "1204.50" is "1,204.50". The digits stay as they came; nothing is rounded. */
export function grouped(amount: string): string {
  const [whole = "", decimals] = amount.split(".");
  const groups = whole.replace(/\B(?=(\d{3})+(?!\d))/g, ",");
  return decimals === undefined ? groups : `${groups}.${decimals}`;
}

/** An amount with its currency; money never stands without. */
export function money(amount: string, currency: string): string {
  return amount === "" ? "" : `${grouped(amount)} ${currency}`;
}

/** Amounts added up to the last digit: "0.1" and "0.20" come to "0.30"; as binary numbers they would not. */
export function sumOf(amounts: string[]): string {
  const digits = Math.max(0, ...amounts.map((amount) => amount.split(".")[1]?.length ?? 0));
  const units = amounts.reduce((sum, amount) => {
    const [whole = "", decimals = ""] = amount.split(".");
    return sum + BigInt(whole + decimals.padEnd(digits, "0"));
  }, 0n);
  const text = (units < 0n ? -units : units).toString().padStart(digits + 1, "0");
  const sign = units < 0n ? "-" : "";
  return digits === 0 ? sign + text : `${sign}${text.slice(0, -digits)}.${text.slice(-digits)}`;
}

/** A value as a comparison has it, with amounts grouped: "1204.50 EUR" is "1,204.50 EUR". */
export function shownValue(value: string): string {
  const [, amount, currency] = /^(-?\d+(?:\.\d+)?) ([A-Z]{3})$/.exec(value) ?? [];
  return amount === undefined || currency === undefined ? value : money(amount, currency);
}

/** "1 document", "2 documents". */
export function count(number: number, of: string): string {
  return `${number} ${of}${number === 1 ? "" : "s"}`;
}

const spoken: Record<string, string> = { iban: "IBAN", vendorTaxId: "vendor tax ID" };

/** A field's name as it is read aloud: invoiceNumber is "invoice number". */
export function spokenName(name: string): string {
  return spoken[name] ?? name.replace(/[A-Z]/g, (letter) => ` ${letter.toLowerCase()}`);
}

/** The list, row and column of `lines[3].amount`, of `lines[3]` without a column; null for a value of the header. */
export function partsOf(name: string): { list: string; row: number; column: string } | null {
  const [, list, row, column = ""] = /^([^[]+)\[(\d+)\](?:\.(.+))?$/.exec(name) ?? [];
  return list === undefined ? null : { list, row: Number(row), column };
}

/** A value's name as findings write it, read aloud: "lines[3].unitPrice" is "row 3, unit price"; "lines[3]" is "row 3". */
export function spokenPlace(name: string): string {
  const parts = partsOf(name);
  return parts === null
    ? spokenName(name)
    : `row ${parts.row}${parts.list === "lines" ? "" : ` of the ${spokenName(parts.list)}`}${parts.column === "" ? "" : `, ${spokenColumn(parts.column)}`}`;
}

/** "unit price"; "deliveries 1, quantity" for a value in a list under a row. */
export function spokenColumn(column: string): string {
  const under = partsOf(column);
  return under ? `${spokenName(under.list)} ${under.row}, ${spokenName(under.column)}` : spokenName(column);
}

export function dayAndTime(instant: string): string {
  return instant.slice(0, 16).replace("T", " ");
}

/** The pages of an invoice whose file holds others too: ", pages 2–3 of 4"; else nothing. */
export function pagesOf(first: number, last: number, all: number): string {
  if (last - first + 1 >= all) {
    return "";
  }
  return first === last ? `, page ${first} of ${all}` : `, pages ${first}–${last} of ${all}`;
}

/** Numbers as a person lists them: [1, 2, 3, 6] is "1–3, 6". */
export function ranges(numbers: number[]): string {
  const found: [number, number][] = [];
  for (const number of [...new Set(numbers)].sort((a, b) => a - b)) {
    const last = found.at(-1);
    if (last && last[1] + 1 === number) {
      last[1] = number;
    } else {
      found.push([number, number]);
    }
  }
  return found.map(([from, to]) => (from === to ? `${from}` : `${from}–${to}`)).join(", ");
}
