/** Bytes as a person reads them: 61300000 is "61.3 MB". */
export function sizeOf(bytes: number): string {
  return bytes >= 1e9 ? `${(bytes / 1e9).toFixed(1)} GB` : `${(bytes / 1e6).toFixed(1)} MB`;
}
