/** The number that somebody typed, with a comma or a point; null for nothing, NaN for what is no number. */
export function typedNumber(text: string): number | null {
  const plain = text.trim().replace(",", ".");
  if (plain === "") return null;
  return /^[+-]?(\d+\.?\d*|\.\d+)$/.test(plain) ? Number(plain) : NaN;
}
