import Button from "@mui/material/Button";
import Typography from "@mui/material/Typography";
import { useQuery } from "@tanstack/react-query";
import { Link as RouterLink, useParams, useSearchParams } from "react-router";
import { api, take } from "../../api/client";
import { Desk } from "../../parts/Desk";
import { Problem } from "../../parts/Problem";
import { ClassAsSeen } from "./StudentClass";
import { PickOne } from "../../parts/PickOne";

/** The workspace exactly as one student sees it, or any student. Staff only look: nothing can be changed from here. */
export function SeeAs() {
  const classId = Number(useParams().id);
  const [address, setAddress] = useSearchParams();
  const person = address.get("as") ?? "any";
  const roster = useQuery({
    queryKey: ["roster", classId],
    queryFn: () => take(api.GET("/api/classes/{classId}/roster", { params: { path: { classId } } })),
  });
  const seen = useQuery({
    queryKey: ["seen-by", classId, person],
    queryFn: () =>
      take(
        person === "any"
          ? api.GET("/api/classes/{classId}/seen-by-any-student", { params: { path: { classId } } })
          : api.GET("/api/classes/{classId}/seen-by/{personId}", {
              params: { path: { classId, personId: Number(person) } },
            }),
      ),
  });
  // Students first: they are whom one wonders about.
  const people = [...(roster.data ?? [])].sort(
    (a, b) => Number(a.role !== "Student") - Number(b.role !== "Student"),
  );
  const name =
    person === "any" ? "any student" : (people.find((s) => String(s.id) === person)?.sortName ?? "");
  if (seen.error)
    return (
      <Desk title="See as">
        <Problem error={seen.error} />
      </Desk>
    );
  if (!seen.data) return <Desk title="See as">{null}</Desk>;
  return (
    <ClassAsSeen
      w={seen.data}
      seenAs={
        <>
          <Typography variant="h2">Seen as {name}</Typography>
          <Typography>
            This is exactly what they see, no more and no less. Nothing can be changed from here.
          </Typography>
          <PickOne
            label="See as"
            none="any student"
            options={people.map((s) => ({
              id: s.id,
              name: `${s.sortName}${s.role === "Student" ? "" : s.role === "Lead" ? " (lead teacher)" : " (co-teacher)"}${s.left ? " (left)" : ""}`,
            }))}
            value={person === "any" ? null : Number(person)}
            onChange={(s) => setAddress({ as: s === null ? "any" : String(s) })}
          />
          <Button variant="outlined" component={RouterLink} to={`/classes/${classId}/set-up`}>
            Back to set up
          </Button>
        </>
      }
    />
  );
}
