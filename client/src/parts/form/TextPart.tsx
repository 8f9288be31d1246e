import TextField, { type TextFieldProps } from "@mui/material/TextField";
import { Controller, type Control, type FieldValues, type Path } from "react-hook-form";

/** A field of a form into which words or figures are typed; what is wrong with them is said under it. */
export function TextPart<T extends FieldValues>({
  control,
  name,
  check,
  help,
  ...look
}: {
  control: Control<T>;
  name: Path<T>;
  /** What is wrong with what is typed, and what to do; undefined where nothing is. */
  check?: (typed: string) => string | undefined;
  help?: string;
} & Omit<TextFieldProps, "name" | "value" | "onChange" | "error" | "helperText">) {
  return (
    <Controller
      control={control}
      name={name}
      rules={check && { validate: (typed: string) => check(typed) ?? true }}
      render={({ field: { ref, ...field }, fieldState }) => (
        <TextField
          {...look}
          {...field}
          inputRef={ref}
          error={fieldState.invalid}
          helperText={fieldState.error?.message || help}
        />
      )}
    />
  );
}
