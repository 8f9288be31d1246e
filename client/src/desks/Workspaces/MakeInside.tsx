import { useForm } from "react-hook-form";
import { useNavigate } from "react-router";
import { api, take } from "../../api/client";
import { useAct } from "../../api/useAct";
import { Ask } from "../../parts/Ask";
import { useRefusal } from "../../parts/form/refusal";
import { TextPart } from "../../parts/form/TextPart";
import { Problem } from "../../parts/Problem";

/** A folder that a student makes inside one in which they may change things. */
export function MakeInside(props: {
  classId: number;
  folderId: number;
  folder: string;
  onClose: () => void;
}) {
  const go = useNavigate();
  const form = useForm({ defaultValues: { name: "" } });
  const make = useAct(
    (name: string, headers) =>
      take(
        api.POST("/api/classes/{classId}/folders/{folderId}/folders", {
          params: { path: { classId: props.classId, folderId: props.folderId } },
          body: { name },
          headers,
        }),
      ),
    ({ id }) => {
      props.onClose();
      void go(`/classes/${props.classId}?folder=${id}`);
    },
  );
  const rest = useRefusal(form, make.error, ["name"]);
  return (
    <Ask
      open
      title={`A folder in “${props.folder}”`}
      act="Make the folder"
      busy={make.isPending}
      onAct={() => void form.handleSubmit(({ name }) => make.mutate(name))()}
      onClose={props.onClose}
    >
      <TextPart
        control={form.control}
        name="name"
        label="Name of the folder"
        autoFocus
        fullWidth
        margin="dense"
        help={`Whoever may do something in “${props.folder}” may do it in this one too.`}
      />
      <Problem error={rest} />
    </Ask>
  );
}
