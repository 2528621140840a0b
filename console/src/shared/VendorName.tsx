/** The vendor of an invoice, or whose it looks like if no template knows. */
export function VendorName({ vendor, looksLike }: { vendor: string; looksLike: string }) {
  return vendor ? vendor : <span className="soft">{looksLike ? `looks like ${looksLike}` : "unknown"}</span>;
}
