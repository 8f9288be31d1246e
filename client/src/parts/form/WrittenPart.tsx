import TextField from "@mui/material/TextField";
import { useRef } from "react";
import { useController, type Control, type FieldValues, type Path } from "react-hook-form";
import { FormatBar } from "../FormatBar";

/** A field of a form into which formatted text is written, with the same marks as pages. */
export function WrittenPart<T extends FieldValues>(props: {
  control: Control<T>;
  name: Path<T>;
  label: string;
}) {
  const box = useRef<HTMLTextAreaElement>(null);
  const { field, fieldState } = useController({ control: props.control, name: props.name });
  const { ref, ...rest } = field;
  return (
    <div>
      <FormatBar field={box} value={field.value} onChange={field.onChange} />
      <TextField
        {...rest}
        fullWidth
        multiline
        minRows={4}
        maxRows={14}
        label={props.label}
        inputRef={(e: HTMLTextAreaElement | null) => {
          box.current = e;
          ref(e);
        }}
        error={fieldState.invalid}
        helperText={fieldState.error?.message}
      />
    </div>
  );
}
