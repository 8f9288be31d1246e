import Button from "@mui/material/Button";
import type { RefObject } from "react";
import "./handed.css";

const marks: [name: string, before: string, after: string, line: boolean][] = [
  ["Heading", "## ", "", true],
  ["Bold", "**", "**", false],
  ["Italic", "*", "*", false],
  ["List", "- ", "", true],
  ["Link", "[", "](https://)", false],
];

/** Puts marks of CommonMark around what is chosen in a box, or before its lines. */
export function FormatBar(props: {
  field: RefObject<HTMLTextAreaElement | null>;
  value: string;
  onChange: (text: string) => void;
}) {
  const put = (before: string, after: string, line: boolean) => {
    const box = props.field.current;
    if (!box) return;
    const { value } = props;
    let from = box.selectionStart;
    const to = box.selectionEnd;
    if (line) from = value.lastIndexOf("\n", from - 1) + 1;
    const chosen = value.slice(from, to);
    const written = line
      ? chosen
          .split("\n")
          .map((l) => before + l)
          .join("\n")
      : before + chosen + after;
    props.onChange(value.slice(0, from) + written + value.slice(to));
    requestAnimationFrame(() => {
      box.focus();
      const end = line ? from + written.length : from + before.length + chosen.length;
      box.setSelectionRange(end, end);
    });
  };
  return <FormatButtons onPut={put} />;
}

/** The marks that can be put; whoever has the box puts them. */
export function FormatButtons({ onPut }: { onPut: (before: string, after: string, line: boolean) => void }) {
  return (
    <div className="format-bar" role="group" aria-label="Format">
      {marks.map(([name, before, after, line]) => (
        <Button key={name} color="inherit" onClick={() => onPut(before, after, line)}>
          {name}
        </Button>
      ))}
    </div>
  );
}
