import Typography from "@mui/material/Typography";
import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { useDeferredValue } from "react";
import { api, take, type Schemas } from "../../../api/client";
import { Problem } from "../../../parts/Problem";
import { StateMark } from "../../../parts/StateMark";
import { count, sayDay, stateWords } from "../../../parts/words";
import { bodyOf, type Typed } from "./giving";

const because: Record<Schemas["Hindrance"], string> = {
  Unseen: "sees none of its folders",
  ViewOnly: "may look and not hand in",
};

const notThere: Record<Schemas["NotThere"], string> = {
  NoFolder: "no folder like those it is filed in",
  TitleTaken: "an assignment of that title is there",
};

/** What giving it comes to, while it is typed: who will find it, who will not and why, where it falls, what else is due then. */
export function GivePreview(props: { classId: number; typed: Typed; was?: Schemas["AssignmentView"] }) {
  const { classId } = props;
  // The words of it change nothing here: only whom, where and when.
  const asked = useDeferredValue(
    JSON.stringify({
      ...bodyOf({ ...props.typed, instructions: "", things: [], marked: "points" }, false),
      title: props.was?.title ?? (props.typed.alsoIn.length > 0 ? props.typed.title : ""),
    }),
  );
  const preview = useQuery({
    queryKey: ["give-preview", classId, props.was?.id ?? null, asked],
    placeholderData: keepPreviousData,
    queryFn: () =>
      take(
        api.POST("/api/classes/{classId}/assignments/preview", {
          params: { path: { classId }, query: { assignment: props.was?.id } },
          body: JSON.parse(asked) as Schemas["NewAssignment"],
        }),
      ),
  });
  const p = preview.data;
  if (!p) return <Problem error={preview.error} />;
  const dated = props.typed.dueOn !== "";
  return (
    <>
      <Typography variant="h2">
        <span role="status">
          {p.given === 0
            ? "Nobody is on the roster yet"
            : p.find === p.given
              ? `${count(p.given, "student finds", "students find")} it${p.others.length > 0 ? " here" : ""}`
              : `${p.find} of ${count(p.given, "student", "students")} find it`}
        </span>
      </Typography>
      {props.typed.folders.length === 0 && <Typography>Pick a folder: it is found there.</Typography>}
      {props.typed.folders.length > 0 && p.inTheWay.length > 0 && (
        <ul className="give-list">
          {p.inTheWay.slice(0, 8).map((h) => (
            <li key={h.student}>
              <StateMark mark="attention" wrap>
                {h.name} {because[h.because]}
              </StateMark>
            </li>
          ))}
          {p.inTheWay.length > 8 && <li>and {p.inTheWay.length - 8} more</li>}
        </ul>
      )}
      {p.others.length > 0 && (
        <Typography>And in {count(p.others.length, "other class", "other classes")}:</Typography>
      )}
      {p.others.length > 0 && (
        <ul className="give-list">
          {p.others.map((o) => (
            <li key={o.class}>
              {o.because ? (
                <StateMark mark="blocked" wrap>
                  {o.name}: {notThere[o.because]}
                </StateMark>
              ) : (
                <>
                  {o.name}: {count(o.students, "student", "students")}
                  <span className="soft">
                    {o.folders.length > 0 && `, in ${o.folders.join("; ")}`}
                    {o.state !== "Open" && `, ${stateWords[o.state]}`}
                  </span>
                </>
              )}
            </li>
          ))}
        </ul>
      )}
      {dated && (
        <Typography>
          {p.week == null ? "Due in a week without school." : `Due in school week ${p.week}.`}
          {p.closes && ` Late work is taken to ${sayDay(p.closes)}.`}
        </Typography>
      )}
      {dated && p.offDay && (
        <StateMark mark="attention" wrap>
          There is no school on that day.
        </StateMark>
      )}
      {dated && p.past && (
        <StateMark mark="attention" wrap>
          That day is over: it would be late from the start.
        </StateMark>
      )}
      {dated && (
        <Typography component="div" variant="body2">
          {p.alsoDue.length === 0 ? (
            "Nothing else is due that week for these students."
          ) : (
            <>
              Also due that week for these students:
              <ul className="give-list">
                {p.alsoDue.slice(0, 8).map((a) => (
                  <li key={`${a.class}-${a.title}`}>
                    {a.title}, {sayDay(a.dueOn)}
                    <span className="soft">
                      {" "}
                      {a.className}, {count(a.students, "student", "students")}
                    </span>
                  </li>
                ))}
                {p.alsoDue.length > 8 && <li>and {p.alsoDue.length - 8} more</li>}
              </ul>
            </>
          )}
        </Typography>
      )}
    </>
  );
}
