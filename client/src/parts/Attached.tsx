import Button from "@mui/material/Button";
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { api, take, type Schemas } from "../api/client";
import { HandedThing } from "./HandedThing";
import { Problem } from "./Problem";
import { Written } from "./Written";

/** What is attached to an assignment, for who finds it: files, links, and pages that are read in place. */
export function Attached(props: {
  classId: number;
  assignmentId: number;
  things: readonly Schemas["AttachedView"][];
}) {
  if (props.things.length === 0) return null;
  return (
    <ul className="attached" aria-label="Attached">
      {props.things.map((t) => (
        <li key={t.id}>
          <AttachedThing classId={props.classId} assignmentId={props.assignmentId} thing={t} />
        </li>
      ))}
    </ul>
  );
}

function AttachedThing(props: { classId: number; assignmentId: number; thing: Schemas["AttachedView"] }) {
  const { classId, assignmentId, thing } = props;
  const [open, setOpen] = useState(false);
  const text = useQuery({
    queryKey: ["attached", classId, assignmentId, thing.id],
    enabled: open,
    queryFn: () =>
      take(
        api.GET("/api/classes/{classId}/assignments/{assignmentId}/things/{thingId}", {
          params: { path: { classId, assignmentId, thingId: thing.id } },
          parseAs: "text",
        }) as Promise<{ data?: string; response: Response }>,
      ),
  });
  return (
    <>
      <HandedThing
        thing={{ ...thing, size: thing.size ?? 0, url: thing.url ?? null, addedAt: "" }}
        at={`/api/classes/${classId}/assignments/${assignmentId}/things/${thing.id}`}
      >
        {thing.kind === "Page" && (
          <Button
            color="inherit"
            aria-expanded={open}
            aria-label={`Read ${thing.name}`}
            onClick={() => setOpen(!open)}
          >
            Read
          </Button>
        )}
      </HandedThing>
      <Problem error={text.error} />
      {open && text.data !== undefined && <Written text={text.data} />}
    </>
  );
}
