import { useEffect } from "react";
import type { FieldValues, Path, UseFormReturn } from "react-hook-form";
import { ProblemError } from "../../api/client";

/**
 * What the server refused (RFC 9457, with the field in it), put where it was typed: the field says what is wrong and what to do,
 * and has the focus.
 * @returns What is about no field of the form, to be said beside it; null where a field says it.
 */
export function useRefusal<T extends FieldValues>(
  form: UseFormReturn<T>,
  error: unknown,
  fields: readonly Path<T>[],
): unknown {
  const field = error instanceof ProblemError ? fields.find((f) => f === error.field) : undefined;
  const { setError } = form;
  useEffect(() => {
    if (field === undefined || !(error instanceof ProblemError)) return;
    setError(field, { type: error.code, message: `${error.what} ${error.mend}` }, { shouldFocus: true });
  }, [error, field, setError]);
  return field === undefined ? error : null;
}
