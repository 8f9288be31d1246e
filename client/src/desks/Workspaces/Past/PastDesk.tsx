import Button from "@mui/material/Button";
import Link from "@mui/material/Link";
import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Link as RouterLink, useParams, useSearchParams } from "react-router";
import { api, take } from "../../../api/client";
import { useHead } from "../../../api/queries";
import { ClassBar } from "../../../parts/ClassBar";
import { Desk, Empty } from "../../../parts/Desk";
import { Problem } from "../../../parts/Problem";
import { PlainTable } from "../../../parts/table/PlainTable";
import { count } from "../../../parts/words";
import { PastLook } from "./PastLook";
import { kinds, where, type Hit } from "./pastWords";
import "./past.css";

/** What was set up before, found by its words from a class of this year, looked at and taken as it is. */
export function PastDesk() {
  const classId = Number(useParams().id);
  const head = useHead(classId);
  const [address, setAddress] = useSearchParams();
  const typed = address.get("find") ?? "";
  const [looking, setLooking] = useState<Hit | null>(null);
  const find = typed.trim();
  const found = useQuery({
    queryKey: ["past", classId, find],
    placeholderData: keepPreviousData,
    queryFn: () =>
      take(api.GET("/api/classes/{classId}/past", { params: { path: { classId }, query: { find } } })),
    // While not all is read there may be more.
    refetchInterval: (q) => (find.length > 1 && q.state.data && !q.state.data.progress.ready ? 1500 : false),
  });
  const f = found.data;
  const hits = find.length > 1 ? (f?.hits ?? []) : [];
  const shut = head.data?.state === "Archived";
  return (
    <Desk
      title="Draw on the past"
      wide
      lead={head.data && <ClassBar head={head.data} />}
      slip={
        looking ? (
          <PastLook
            key={`${looking.kind}${looking.id}`}
            into={classId}
            hit={looking}
            find={find}
            shut={shut}
          />
        ) : (
          <>
            <Typography variant="h2">Nothing looked at</Typography>
            <Typography className="past-soft">
              Look at a thing, then take it: it comes to the same place in this class, an assignment as a
              draft without a date. What is there already stays as it is.
            </Typography>
          </>
        )
      }
    >
      <Problem error={head.error ?? found.error} />
      <TextField
        label="Find by words in titles and texts"
        autoFocus
        value={typed}
        onChange={(e) => setAddress(e.target.value ? { find: e.target.value } : {}, { replace: true })}
        helperText={
          f && `Over ${count(f.classes, "class or bank", "classes and banks")} that you may draw on`
        }
        className="past-find"
      />
      <Typography role="status" className="past-soft">
        {find.length > 1 && f && !f.progress.ready
          ? f.progress.of > 0
            ? `Still reading: ${f.progress.read} of ${f.progress.of} things. There may be more.`
            : "Still reading what there is. There may be more."
          : ""}
      </Typography>
      {find.length > 1 && f?.progress.ready && hits.length === 0 && !found.isFetching && (
        <Empty title="Nothing with these words.">
          Fewer words find more; the beginning of a word is enough. Pictures and sound are not read.
        </Empty>
      )}
      {f?.classes === 0 && (
        <Empty title="There is no past to draw on yet.">
          Classes that you taught, banks of your departments and kept copies are found here.
        </Empty>
      )}
      {hits.length > 0 && (
        <PlainTable
          label="Found"
          heading={`${count(hits.length, "thing", "things")} found`}
          rows={hits}
          id={(h) => `${h.kind}${h.id}`}
          columns={[
            {
              head: "Thing",
              main: true,
              width: "36%",
              cell: (h) => (
                <>
                  <strong>{h.name}</strong>
                  <Typography variant="caption" component="div" className="past-soft">
                    {kinds[h.kind]}
                    {h.folder && `, in ${h.folder}`}
                    {h.also > 0 && `; the same in ${count(h.also, "more class", "more classes")}`}
                  </Typography>
                </>
              ),
            },
            {
              head: "Class",
              cell: (h) => (
                <Link component={RouterLink} to={`/classes/${h.class}/set-up`}>
                  {h.className}
                </Link>
              ),
            },
            { head: "Year", cell: (h) => h.yearLabel },
            { head: "Where", cell: (h) => where[h.where] },
            {
              head: "",
              cell: (h) => (
                <Button
                  onClick={() => setLooking(h)}
                  aria-label={`Look at ${h.name} of ${h.className}`}
                  aria-pressed={looking?.kind === h.kind && looking.id === h.id}
                >
                  Look
                </Button>
              ),
              align: "right",
            },
          ]}
        />
      )}
    </Desk>
  );
}
