import Typography from "@mui/material/Typography";
import { useForm, useWatch } from "react-hook-form";
import { api, take, type Schemas } from "../../../api/client";
import { useAct } from "../../../api/useAct";
import { Ask } from "../../../parts/Ask";
import { useRefusal } from "../../../parts/form/refusal";
import { asksOf, asksTyped, type AsksTyped } from "./asking";
import { AsksPart } from "./AsksPart";
import "./asking.css";

/** Has a thing ask to be acknowledged: by whom, and until when. */
export function AskForm(props: { classId: number; item: Schemas["ItemView"]; onClose: () => void }) {
  const { item } = props;
  const form = useForm<AsksTyped>({
    defaultValues: item.asks ? asksTyped(item.asks) : { asks: "Student", until: "" },
  });
  const asks = useWatch({ control: form.control, name: "asks" });
  const save = useAct((typed: AsksTyped, headers) => {
    const asked = asksOf(typed);
    return take(
      api.PUT("/api/classes/{classId}/items/{itemId}/asks", {
        params: { path: { classId: props.classId, itemId: item.id } },
        body: { of: asked?.of ?? null, until: asked?.until ?? null },
        headers,
      }),
    );
  }, props.onClose);
  const refused = useRefusal(form, save.error, ["until"]);
  return (
    <Ask
      open
      title={`Have “${item.name}” acknowledged`}
      act={asks === "" ? "Ask nobody" : "Ask it"}
      busy={save.isPending}
      error={refused}
      onAct={() => save.mutate(form.getValues())}
      onClose={props.onClose}
    >
      <Typography variant="body2">
        It stands above all else in the class, for each student who finds it, until they have said that they
        have read it. At home it is done with a code on paper, without an account: the papers are printed
        under <em>Acknowledged</em>.
      </Typography>
      <AsksPart control={form.control} asks={asks} />
    </Ask>
  );
}
