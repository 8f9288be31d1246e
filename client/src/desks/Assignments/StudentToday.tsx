import Link from "@mui/material/Link";
import { Link as RouterLink } from "react-router";
import { Desk } from "../../parts/Desk";
import { MyClasses } from "../Workspaces/MyClasses";
import { TodayList } from "./TodayList";
import { sayWeek, sayWholeDay, useToday } from "./today";

/** A student's first screen: the day over all classes, then the classes, then what can be taken home. */
export function StudentToday() {
  const today = useToday();
  const t = today.data;
  return (
    <Desk
      title={t ? sayWholeDay(t.day) : "Today"}
      lead={
        t && (
          <>
            {sayWeek(t)}{" "}
            <Link component={RouterLink} to="/join" className="alone">
              Join a class with a code
            </Link>
          </>
        )
      }
    >
      <TodayList today={t} error={today.error} />
      <MyClasses />
    </Desk>
  );
}
