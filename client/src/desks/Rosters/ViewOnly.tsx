import ToggleButton from "@mui/material/ToggleButton";
import ToggleButtonGroup from "@mui/material/ToggleButtonGroup";
import Typography from "@mui/material/Typography";
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { api, take, type Schemas } from "../../api/client";
import { useAct } from "../../api/useAct";
import { Ask } from "../../parts/Ask";
import { count } from "../../parts/words";
import { PlainTable } from "../../parts/table/PlainTable";

/** Students set to view only, or let post again, with what it means for each. */
export function ViewOnly(props: {
  classId: number;
  students: Schemas["RosterRow"][];
  onDone: () => void;
  onClose: () => void;
}) {
  const people = props.students.map((s) => s.id);
  const [posts, setPosts] = useState(props.students.every((s) => s.posts === false));
  const path = { path: { classId: props.classId } };
  const said = useQuery({
    queryKey: ["posting", props.classId, people],
    gcTime: 0,
    queryFn: () =>
      take(api.POST("/api/classes/{classId}/roster/posting-preview", { params: path, body: { people } })),
  });
  const set = useAct(
    (_: void, headers) =>
      take(
        api.PUT("/api/classes/{classId}/roster/posting", { params: path, body: { people, posts }, headers }),
      ),
    props.onDone,
  );
  const changes = (said.data ?? []).filter((s) => s.posts !== posts);
  const who = count(changes.length, "student", "students");
  return (
    <Ask
      open
      wide
      title={`${count(people.length, "student", "students")}: view only, or post?`}
      act={posts ? `Let ${who} post` : `Set ${who} to view only`}
      disabled={changes.length === 0}
      busy={set.isPending}
      error={said.error ?? set.error}
      onAct={() => set.mutate()}
      onClose={props.onClose}
    >
      <ToggleButtonGroup
        exclusive
        size="small"
        value={posts}
        onChange={(_, v: boolean | null) => v !== null && setPosts(v)}
        aria-label="From now on"
        sx={{ mb: 1.5 }}
      >
        <ToggleButton value={false}>View only</ToggleButton>
        <ToggleButton value={true}>Post</ToggleButton>
      </ToggleButtonGroup>
      <Typography sx={{ mb: 1 }}>
        {posts
          ? "They add to these folders and hand in again, as the rules of the folders let them."
          : "They go on seeing all they see now. They add, change and hand in nothing until they may post again; what they have begun stays theirs."}
      </Typography>
      {said.data && (
        <PlainTable
          label="What it means"
          rows={said.data}
          id={(s) => s.id}
          soft={(s) => s.posts === posts}
          columns={[
            { head: "Name", cell: (s) => <strong>{s.name}</strong> },
            {
              head: posts ? "Can add again to" : "Can no longer add to",
              cell: (s) =>
                s.posts === posts ? (posts ? "posts already" : "views only already") : folders(s.folders),
            },
            {
              head: posts ? "Begun, can be handed in" : "Begun, waits with them",
              align: "right",
              cell: (s) => (s.posts === posts ? null : s.begun),
            },
          ]}
        />
      )}
    </Ask>
  );
}

const folders = (names: string[]) =>
  names.length === 0
    ? "no folder"
    : names.length <= 4
      ? names.join(" · ")
      : `${names.slice(0, 3).join(" · ")} and ${count(names.length - 3, "more", "more")}`;
