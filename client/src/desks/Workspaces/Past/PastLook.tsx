import Button from "@mui/material/Button";
import Link from "@mui/material/Link";
import Typography from "@mui/material/Typography";
import { useQuery } from "@tanstack/react-query";
import { Link as RouterLink } from "react-router";
import { api, take } from "../../../api/client";
import { useAct } from "../../../api/useAct";
import { Problem } from "../../../parts/Problem";
import { StateMark } from "../../../parts/StateMark";
import { count } from "../../../parts/words";
import { kinds, type Hit } from "./pastWords";

/** A thing of the past as it looks, what taking it will do to this class, and taking it. */
export function PastLook({ into, hit, find, shut }: { into: number; hit: Hit; find: string; shut: boolean }) {
  const look = useQuery({
    queryKey: ["past-look", into, hit.kind, hit.id],
    queryFn: () =>
      take(
        api.GET("/api/classes/{classId}/past/{kind}/{thingId}", {
          params: { path: { classId: into, kind: hit.kind, thingId: hit.id }, query: { find } },
        }),
      ),
  });
  const body = {
    items: ["File", "Link", "Page"].includes(hit.kind) ? [hit.id] : null,
    folders: hit.kind === "Folder" ? [hit.id] : null,
    assignments: hit.kind === "Assignment" ? [hit.id] : null,
    welcome: false,
    to: [into],
    into: null,
  };
  const from = { params: { path: { classId: hit.class } } };
  const will = useQuery({
    queryKey: ["giving", hit.class, body],
    enabled: hit.mayCopy && !shut,
    retry: false,
    queryFn: () => take(api.POST("/api/classes/{classId}/giving-preview", { ...from, body })),
  });
  const give = useAct((_: void, headers) =>
    take(api.POST("/api/classes/{classId}/giving", { ...from, body, headers })),
  );
  const said = (give.data ?? will.data)?.[0];
  const idle = said !== undefined && said.adds === 0 && said.makesFolders === 0;
  const l = look.data;
  return (
    <>
      <Typography variant="h2" className="past-name">
        {hit.name}
      </Typography>
      <Typography className="past-soft">
        {kinds[hit.kind]} of {hit.className}
      </Typography>
      <Problem error={look.error ?? will.error ?? give.error} />
      {shut ? (
        <StateMark mark="blocked" wrap>
          This class is archived: nothing can be put into it.
        </StateMark>
      ) : !hit.mayCopy ? (
        <StateMark mark="blocked" wrap>
          Marked as nothing to copy into another class.
        </StateMark>
      ) : give.data ? (
        <StateMark mark="done" wrap>
          {count(said!.adds, "thing", "things")} taken
          {said!.makesFolders > 0 && `, ${count(said!.makesFolders, "folder", "folders")} made`}.
        </StateMark>
      ) : (
        <>
          <Button
            variant="contained"
            disabled={!said || idle || said.refused != null || give.isPending}
            onClick={() => give.mutate()}
          >
            {idle ? "It is here already" : "Take it into this class"}
          </Button>
          {said && !idle && (
            <Typography variant="body2">
              Comes{" "}
              {said.lines
                .filter((n) => !n.there)
                .slice(0, 3)
                .map((n) => (n.what === "makes a folder" ? `with a new folder, ${n.where}` : `to ${n.where}`))
                .join("; ")}
              {hit.kind === "Assignment" && ", as a draft without a date"}.
            </Typography>
          )}
          {said != null && said.unseen > 0 && (
            <StateMark mark="none" wrap>
              Students do not see it there: the folder is for staff.
            </StateMark>
          )}
          {said != null && said.barred > 0 && (
            <StateMark mark="attention" wrap>
              {count(said.barred, "thing stays", "things stay")} behind: marked as nothing to copy.
            </StateMark>
          )}
        </>
      )}
      {give.data && (
        <Link component={RouterLink} to={`/classes/${into}/set-up`}>
          See it in the class
        </Link>
      )}
      {l && l.facts.length > 0 && (
        <ul className="past-facts">
          {l.facts.map((x, n) => (
            <li key={n}>{x}</li>
          ))}
        </ul>
      )}
      {l?.text != null && (
        <div className="past-text" role="region" tabIndex={0} aria-label={`What is written in ${hit.name}`}>
          {l.text}
        </div>
      )}
      {l && l.text == null && l.facts.length === 0 && (
        <Typography className="past-soft">Nothing of it can be shown as words.</Typography>
      )}
    </>
  );
}
