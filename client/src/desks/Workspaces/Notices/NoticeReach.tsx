import Typography from "@mui/material/Typography";
import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { api, take } from "../../../api/client";
import { Problem } from "../../../parts/Problem";
import { StateMark } from "../../../parts/StateMark";
import { count } from "../../../parts/words";
import { bodyOf, type Typed } from "./noticing";

/** Whom a notice would reach, while it is typed. */
export function NoticeReach({ typed }: { typed: Typed }) {
  const body = { ...bodyOf(typed), text: "", postAt: null, pinnedUntil: null };
  const none = !body.school && body.classes?.length === 0;
  const reach = useQuery({
    queryKey: ["notice-reach", body],
    placeholderData: keepPreviousData,
    enabled: !none,
    queryFn: () => take(api.POST("/api/notices/reach", { body })),
  });
  if (none) return <Typography variant="h2">To nobody yet</Typography>;
  const r = reach.data;
  if (!r) return <Problem error={reach.error} />;
  return (
    <>
      <Typography variant="h2">
        <span role="status">
          {body.school
            ? `${count(r.students, "person finds", "people find")} it`
            : `${count(r.students, "student finds", "students find")} it`}
        </span>
      </Typography>
      <Typography variant="body2">
        {body.school
          ? "Everybody with an account, students and staff, in their day."
          : `In their day and in ${count(r.classes.length, "the class", "classes")}; each counted once.`}
      </Typography>
      {r.later > 0 && (
        <StateMark mark="attention" wrap>
          {count(r.later, "student finds", "students find")} it only once their class is opened
        </StateMark>
      )}
      {r.classes.some((k) => k.students === 0) && (
        <StateMark mark="attention" wrap>
          nobody in{" "}
          {r.classes
            .filter((k) => k.students === 0)
            .map((k) => k.name)
            .join(", ")}
        </StateMark>
      )}
    </>
  );
}
