import Checkbox from "@mui/material/Checkbox";
import Divider from "@mui/material/Divider";
import Menu from "@mui/material/Menu";
import MenuItem from "@mui/material/MenuItem";
import { copyText, saveText } from "../copy";
import { count } from "../words";
import { asCsv, asTabs, fieldsOf } from "./asText";

/** What can be done with a table as a whole: taken along as text, and its columns shown or not. */
export function TableMenu(props: {
  label: string;
  at: HTMLElement;
  /** Names of those columns that can be hidden. */
  names: readonly string[];
  hidden: ReadonlySet<string>;
  onHide: (hidden: ReadonlySet<string>) => void;
  /** How many rows are taken along: those that are ticked, or all. */
  many: number;
  ticked: boolean;
  /** What is in them, as it is read. */
  fields: (read: typeof fieldsOf) => string[][];
  onSay: (text: string) => void;
  onClose: () => void;
}) {
  const { many, hidden, fields } = props;
  const what = props.ticked ? count(many, "ticked row", "ticked rows") : count(many, "row", "rows");
  const copy = async () => {
    const there = await copyText(asTabs(fields(fieldsOf)));
    props.onSay(there ? `Copied ${what}` : "The browser does not let it be copied");
    props.onClose();
  };
  return (
    <Menu open anchorEl={props.at} onClose={props.onClose}>
      <MenuItem onClick={() => void copy()}>Copy {what}</MenuItem>
      <MenuItem
        onClick={() => {
          saveText(`${fileName(props.label)}.csv`, asCsv(fields(fieldsOf)), "text/csv;charset=utf-8");
          props.onClose();
        }}
      >
        Download {what} as CSV
      </MenuItem>
      {props.names.length > 0 && <Divider />}
      {props.names.map((name) => (
        <MenuItem
          key={name}
          role="menuitemcheckbox"
          aria-checked={!hidden.has(name)}
          dense
          onClick={() => {
            const next = new Set(hidden);
            if (!next.delete(name)) next.add(name);
            props.onHide(next);
          }}
        >
          <Checkbox checked={!hidden.has(name)} tabIndex={-1} aria-hidden="true" disableRipple />
          {name}
        </MenuItem>
      ))}
    </Menu>
  );
}

// A name that every file system takes.
const fileName = (label: string) =>
  label
    .replace(/[\\/:*?"<>|\p{Cc}]+/gu, " ")
    .trim()
    .slice(0, 100) || "table";
