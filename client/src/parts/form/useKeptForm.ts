import { useEffect } from "react";
import { useForm, type DefaultValues, type FieldValues, type UseFormReturn } from "react-hook-form";
import { useDraft } from "../useDraft";

/**
 * A form whose typed values outlive a reload, leaving and coming back: kept by person and by what they are of. It is dropped
 * when it is saved, or by hand.
 * @param of What is being edited, with its version where there is one.
 */
export function useKeptForm<T extends FieldValues>(
  of: string,
  saved: T,
): UseFormReturn<T> & { kept: boolean; drop: () => void } {
  const draft = useDraft<T>(of, saved);
  // What an earlier program kept may lack a field of this one.
  const form = useForm<T>({ defaultValues: { ...saved, ...draft.draft } as DefaultValues<T> });
  const { change } = draft;
  useEffect(() => {
    const { unsubscribe } = form.watch((values) => change(values as T));
    return unsubscribe;
    // eslint-disable-next-line react-hooks/exhaustive-deps -- `change` is another function each time and does the same
  }, [form]);
  return {
    ...form,
    kept: draft.changed,
    drop: () => {
      form.reset(saved);
      draft.drop();
    },
  };
}
