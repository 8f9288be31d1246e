import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { api, take, type Schemas } from "../../api/client";
import { useAct } from "../../api/useAct";
import { Ask } from "../../parts/Ask";
import { Problem } from "../../parts/Problem";
import { count, sayDay } from "../../parts/words";

const bars: Record<Exclude<Schemas["ErasureBar"], "None" | "NotFetched">, string> = {
  StillHere: "They have not left: say so first.",
  Erased: "That was done already.",
  Joined: "This account is joined into another, which is theirs.",
  WorkHeld: "A teacher still holds work of theirs: it is returned first.",
  OnRoster: "They stand on the roster of a class that goes on: they come off it first.",
};

/** Takes the data of somebody who left out of the directory; says first what goes, what must stay, and why. */
export function ErasePerson(props: { id: number; name: string; onDone: () => void; onClose: () => void }) {
  const [typed, setTyped] = useState("");
  const seen = useQuery({
    queryKey: ["erasing", props.id],
    queryFn: () =>
      take(api.GET("/api/people/{personId}/erasing", { params: { path: { personId: props.id } } })),
  });
  const erase = useAct(
    (_: void, headers) =>
      take(
        api.POST("/api/people/{personId}/erasing", {
          params: { path: { personId: props.id } },
          body: { name: typed },
          headers,
        }),
      ),
    props.onDone,
  );
  const v = seen.data;
  return (
    <Ask
      open
      title={`Erase ${props.name}?`}
      act="Erase for good"
      busy={erase.isPending}
      disabled={v?.bar !== "None" || typed.trim() !== v.name}
      error={erase.error}
      onAct={() => erase.mutate()}
      onClose={props.onClose}
    >
      <Problem error={seen.error} />
      {v && v.bar !== "None" && (
        <Typography role="status">
          {v.bar === "NotFetched"
            ? `The take-home of ${v.notFetched.join(", ")} holds what stands nowhere else, and was not fetched. It waits for them until ${sayDay(v.until!)}. Hand it out, or wait.`
            : bars[v.bar]}
        </Typography>
      )}
      {v && v.bar === "None" && (
        <>
          <Typography sx={{ mb: 1 }}>
            <strong>Goes:</strong> name, number, e-mail, user name, sign-in
            {v.counts.takeHomes > 0 && `, ${count(v.counts.takeHomes, "take-home", "take-homes")}`}
            {v.counts.lines > 0 &&
              `; the name in ${count(v.counts.lines, "line", "lines")} of the audit trail`}
            .
          </Typography>
          <Typography sx={{ mb: 1 }}>
            <strong>Stays, under the name “{v.becomes}”:</strong> {count(v.counts.works, "piece", "pieces")}{" "}
            of work with marks and {count(v.counts.files, "file", "files")} in{" "}
            {count(v.counts.classes, "class", "classes")}, as the school&rsquo;s record of them, until those
            classes are deleted. Archive packages that were made and rosters that were delivered are as they
            were and may still name them.
          </Typography>
          {v.notFetched.length > 0 && (
            <Typography sx={{ mb: 1 }}>
              The take-home of {v.notFetched.join(", ")} was never fetched; they have had until{" "}
              {sayDay(v.until!)}.
            </Typography>
          )}
          <TextField
            label={`Type “${v.name}”`}
            value={typed}
            onChange={(e) => setTyped(e.target.value)}
            error={erase.error?.field === "name"}
            sx={{ width: "100%", mt: 1 }}
          />
        </>
      )}
    </Ask>
  );
}
