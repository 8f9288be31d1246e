import Button from "@mui/material/Button";
import Typography from "@mui/material/Typography";
import { useController, type Control } from "react-hook-form";
import { useSending } from "../../../parts/form/useSending";
import { FileButton } from "../../../parts/FileButton";
import { StateMark } from "../../../parts/StateMark";
import { sayBytes } from "../../../parts/words";
import type { Typed } from "./noticing";

/** Files with a notice: sent at once, seen by nobody before it is posted. */
export function NoticeFilesPart({ control }: { control: Control<Typed> }) {
  const { field, fieldState } = useController({ control, name: "files" });
  const files = field.value;
  const { send, sending, wrong } = useSending("/api/notices/files", (arrived) =>
    field.onChange([...files, ...arrived.map((f) => ({ upload: f.id, name: f.name, size: f.size }))]),
  );
  return (
    <div role="group" aria-label="Files with it" className="notice-sent">
      <Typography variant="body2">Files with it{files.length === 0 ? ": none" : ""}</Typography>
      {files.length > 0 && (
        <ul>
          {files.map((f) => (
            <li key={f.id ?? `sent-${f.upload}`}>
              <span>{f.name}</span> <span className="soft">{sayBytes(f.size)}</span>
              <Button
                color="inherit"
                aria-label={`Take off ${f.name}`}
                onClick={() => field.onChange(files.filter((x) => x !== f))}
              >
                Take off
              </Button>
            </li>
          ))}
        </ul>
      )}
      <FileButton multiple disabled={sending !== null} onFiles={(chosen) => void send(chosen)}>
        Add files…
      </FileButton>
      <span role="status">{sending && ` ${sending} is on its way`}</span>
      {[...wrong, ...(fieldState.error?.message ? [fieldState.error.message] : [])].map((x) => (
        <StateMark key={x} mark="blocked" wrap>
          {x}
        </StateMark>
      ))}
    </div>
  );
}
