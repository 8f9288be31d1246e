import Button from "@mui/material/Button";
import { api, take, type Schemas } from "../api/client";
import { useAct } from "../api/useAct";
import { Problem } from "./Problem";
import { StateMark } from "./StateMark";
import { sayDay, sayMoment } from "./words";
import "./acknowledge.css";

/** What a thing or a notice asks of the student who reads it, and their answer. */
export function Acknowledge(props: {
  classId: number;
  asked: Schemas["OwnAsking"];
  /** What it is, for whoever hears the button alone. */
  title: string;
  /** Looked at, not answered: by staff, or in a class that takes nothing more. */
  shut: boolean;
}) {
  const { asked: a } = props;
  const say = useAct((_: void, headers) =>
    take(
      api.POST("/api/classes/{classId}/acknowledgements/{askingId}", {
        params: { path: { classId: props.classId, askingId: a.id } },
        headers,
      }),
    ),
  );
  const until = a.until && `by ${sayDay(a.until)}`;
  return (
    <div className="acknowledge">
      {a.own && !props.shut && (
        <Button
          variant="contained"
          disabled={say.isPending}
          aria-label={`I have read this: ${props.title}`}
          onClick={() => say.mutate()}
        >
          I have read this
        </Button>
      )}
      {a.own && (
        <StateMark mark={a.late ? "blocked" : "attention"} strong={a.late}>
          {["to be acknowledged", until].filter(Boolean).join(" ")}
          {a.late && ", late"}
        </StateMark>
      )}
      {a.ownAt && <StateMark mark="done">you acknowledged it {sayMoment(a.ownAt)}</StateMark>}
      {a.home && (
        <StateMark mark={a.late ? "attention" : "notYet"}>
          {["at home still", until].filter(Boolean).join(", ")}
        </StateMark>
      )}
      {!a.home && a.of !== "Student" && <StateMark mark="done">acknowledged at home</StateMark>}
      <Problem error={say.error} />
    </div>
  );
}
