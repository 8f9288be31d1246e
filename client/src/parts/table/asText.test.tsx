import { describe, expect, it } from "vitest";
import { asCsv, asTabs } from "./asText";
import { wordsIn } from "./columns";

describe("a table as text", () => {
  it("is written as RFC 4180 says: CRLF at each end, quotes around what has commas, quotes or ends of lines", () => {
    expect(
      asCsv([
        ["a", "b"],
        ['say "hi"', "1,5"],
        ["two\nlines", ""],
      ]),
    ).toBe('a,b\r\n"say ""hi""","1,5"\r\n"two\nlines",\r\n');
  });

  it("is guarded as the server guards it: what looks like a formula gets one more mark", () => {
    for (const [field, written] of [
      ["=1+1", "'=1+1"],
      ["+47", "'+47"],
      ["-", "'-"],
      ["@a", "'@a"],
      ["'=x", "''=x"],
      ["a=b", "a=b"],
      ["'tis", "'tis"],
    ])
      expect(asCsv([[field!]])).toBe(`${written}\r\n`);
  });

  it("has no tab and no line end in a field on the clipboard", () => {
    expect(
      asTabs([
        ["a\tb", "c\nd"],
        ["e", "f"],
      ]),
    ).toBe("a b\tc d\ne\tf");
  });

  it("says the words that are drawn, apart where they stand apart, and no drawing", () => {
    const Mark = ({ children }: { children: string }) => <b>{children}</b>;
    expect(
      wordsIn(
        <>
          <svg aria-hidden="true">
            <text>no</text>
          </svg>
          <strong>Skiff</strong> of {3}
          <div>at the pier</div>
          <Mark>held</Mark>
          {false}
          {null}
        </>,
      ),
    ).toBe("Skiff of 3 at the pier held");
  });
});
