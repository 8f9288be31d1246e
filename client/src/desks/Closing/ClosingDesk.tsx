import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import FormControlLabel from "@mui/material/FormControlLabel";
import Link from "@mui/material/Link";
import Radio from "@mui/material/Radio";
import RadioGroup from "@mui/material/RadioGroup";
import Typography from "@mui/material/Typography";
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Link as RouterLink, useParams } from "react-router";
import { api, take, type Schemas } from "../../api/client";
import { useHead } from "../../api/queries";
import { useAct } from "../../api/useAct";
import { Ask } from "../../parts/Ask";
import { ClassBar } from "../../parts/ClassBar";
import { Desk } from "../../parts/Desk";
import { Problem } from "../../parts/Problem";
import { StateMark } from "../../parts/StateMark";
import { count, sayBytes } from "../../parts/words";
import { levels, mends } from "./closingWords";
import { RunProgress } from "./RunProgress";
import { PlainTable } from "../../parts/table/PlainTable";

/** The closing desk of a class: what is ready, what wants attention, what blocks, and the run. */
export function ClosingDesk() {
  const id = Number(useParams().id);
  const head = useHead(id);
  const closing = useQuery({
    queryKey: ["closing", id],
    queryFn: () => take(api.GET("/api/classes/{classId}/closing", { params: { path: { classId: id } } })),
  });
  const [asking, setAsking] = useState(false);
  const [after, setAfter] = useState<Schemas["AfterArchive"]>("View");
  const close = useAct(
    (_: void, headers) =>
      take(
        api.POST("/api/classes/{classId}/closing", {
          params: { path: { classId: id } },
          body: { afterArchive: after },
          headers,
        }),
      ),
    () => setAsking(false),
  );
  const keep = useAct((_: void, headers) =>
    take(
      api.POST("/api/classes/{classId}/kept-copies", {
        params: { path: { classId: id } },
        body: { folder: null },
        headers,
      }),
    ),
  );
  const d = closing.data;
  const blocked = d?.level === "Blocks";
  const may = head.data?.may.includes("CloseClass") ?? false;
  const archived = head.data?.state === "Archived";
  const going = head.data?.runGoing ?? false;
  return (
    <Desk
      title="Close"
      wide
      lead={head.data && <ClassBar head={head.data} />}
      slip={
        <>
          <Typography variant="h2">
            {archived ? "In the loft" : going ? "Closing now" : blocked ? "Not yet" : "Ready to close"}
          </Typography>
          {archived ? (
            <>
              <Typography>Read-only for everybody, with a checked package. It can be restored.</Typography>
              <Button variant="contained" component={RouterLink} to="/loft">
                Go to the loft
              </Button>
              <Button variant="outlined" component={RouterLink} to={`/classes/${id}/roll-over`}>
                Roll over to next year…
              </Button>
            </>
          ) : going ? (
            <Typography>
              You can leave this page: the run goes on by itself, also after a restart of the server.
            </Typography>
          ) : (
            <>
              <Typography>
                {blocked
                  ? "Work that the teacher holds would be out of its student's reach in the archive. So closing waits until everything is returned."
                  : "Closing makes each student's take-home, packs and checks the archive, and then makes the class read-only. Nothing is deleted, and it can be undone."}
              </Typography>
              {may ? (
                <Button variant="contained" disabled={blocked || !d} onClick={() => setAsking(true)}>
                  Close this class…
                </Button>
              ) : (
                <Typography sx={{ color: "text.secondary" }}>
                  The lead teacher or the coordinator closes the class.
                </Typography>
              )}
            </>
          )}
          {keep.isSuccess ? (
            <StateMark mark="done">
              kept;{" "}
              <Link component={RouterLink} to="/close/kept">
                see your copies
              </Link>
            </StateMark>
          ) : (
            <Button variant="outlined" disabled={keep.isPending} onClick={() => keep.mutate()}>
              Keep a copy of its set-up
            </Button>
          )}
        </>
      }
    >
      <Problem error={head.error ?? closing.error ?? keep.error} />
      {d && !archived && !going && (
        <PlainTable
          label="Before closing"
          maxWidth={900}
          bare
          rows={d.findings}
          id={(f) => f.code}
          columns={[
            {
              head: "How much it matters",
              width: 150,
              cell: (f) => (
                <StateMark mark={levels[f.level].mark} strong={f.level === "Blocks"}>
                  {levels[f.level].word}
                </StateMark>
              ),
            },
            { head: "What", cell: (f) => f.text },
            {
              head: "",
              align: "right",
              cell: (f) => {
                const mend = mends[f.mend];
                return (
                  mend && (
                    <Link component={RouterLink} to={`/classes/${id}/${mend.to}`}>
                      {mend.act}
                    </Link>
                  )
                );
              },
            },
          ]}
        />
      )}
      {d && !archived && !going && (
        <Box component="section" aria-label="What closing will do" sx={{ mt: 3, maxWidth: 900 }}>
          <Typography variant="h2">What closing will do, in this order</Typography>
          <ClosingOrder d={d} />
        </Box>
      )}
      {d?.run != null && (
        <Box sx={{ mt: archived || going ? 0 : 4 }}>
          <RunProgress key={d.run} classId={id} runId={d.run} />
        </Box>
      )}
      <Ask
        open={asking}
        title={`Close ${head.data?.name}?`}
        act="Close the class"
        busy={close.isPending}
        error={close.error}
        onAct={() => close.mutate()}
        onClose={() => setAsking(false)}
      >
        <Typography>Each step begins once the one before is done. Nothing is deleted.</Typography>
        {d && <ClosingOrder d={d} />}
        <Typography component="h3" variant="h3">
          Afterwards students
        </Typography>
        <RadioGroup value={after} onChange={(e) => setAfter(e.target.value as typeof after)}>
          <FormControlLabel
            value="View"
            control={<Radio size="small" />}
            label="may still look at the class"
          />
          <FormControlLabel
            value="Nothing"
            control={<Radio size="small" />}
            label="see nothing of it but their take-home"
          />
        </RadioGroup>
      </Ask>
    </Desk>
  );
}

function ClosingOrder({ d }: { d: Schemas["ClosingView"] }) {
  return (
    <Box component="ol" sx={{ pl: 2.5, my: 1, "& li": { py: 0.25 } }}>
      <li>
        a take-home for each who has work or files in it, of{" "}
        {count(d.students, "student who is or was", "students who are or were")} on the roster
      </li>
      <li>
        the archive package: {count(d.files, "file", "files")}, {sayBytes(d.bytes)}, with roster, marks and
        folder rules
      </li>
      <li>the check: the package is read back and every file compared with the class</li>
      <li>the class is archived and stands in the loft, read-only; it can be restored</li>
    </Box>
  );
}
