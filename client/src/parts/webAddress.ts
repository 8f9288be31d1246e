/**
 * Where a link that somebody wrote may lead: a web site by its whole address, a mail address, or a place of Spring Loft. What
 * only looks like a place of ours ("//elsewhere.example", "/\\elsewhere.example") leads nowhere, as do scripts.
 */
export function webAddress(written: string): string {
  const address = written.trim();
  return /^(https?:\/\/|mailto:)/i.test(address) || /^[/#](?![/\\])/.test(address) ? address : "";
}
