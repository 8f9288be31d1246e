import Button from "@mui/material/Button";
import Link from "@mui/material/Link";
import Typography from "@mui/material/Typography";
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Link as RouterLink, useParams } from "react-router";
import { api, take } from "../../api/client";
import { useBinSpan, useHead } from "../../api/queries";
import { ClassBar } from "../../parts/ClassBar";
import { Desk, Empty } from "../../parts/Desk";
import { Problem } from "../../parts/Problem";
import { StateMark } from "../../parts/StateMark";
import { PlainTable } from "../../parts/table/PlainTable";
import { count, sayMoment } from "../../parts/words";
import { useBringBack } from "./bringBack";

/** The bin of a class: who binned what, when and from where, and the way back. */
export function BinDesk() {
  const id = Number(useParams().id);
  const head = useHead(id);
  const bin = useQuery({
    queryKey: ["class-bin", id],
    queryFn: () => take(api.GET("/api/classes/{classId}/bin", { params: { path: { classId: id } } })),
  });
  const [said, setSaid] = useState("");
  const back = useBringBack(id, (b) => setSaid(`“${b.name}” is back${b.from ? ` in “${b.from}”` : ""}.`));
  const things = bin.data ?? [];
  const span = useBinSpan();
  const student = head.data?.standing === "Student";
  const shut = head.data?.state === "Archived";
  return (
    <Desk
      title="Bin"
      wide
      lead={head.data && <ClassBar head={head.data} />}
      slip={<Slip student={student} />}
    >
      <Problem error={bin.error ?? back.error} />
      <Typography role="status" variant="body2">
        {said}
      </Typography>
      {bin.data?.length === 0 && (
        <Empty title="Nothing is in the bin.">
          {student
            ? `What you put into this class and somebody bins stands here for ${span}.`
            : `What is binned in this class stands here for ${span} and can be brought back.`}
        </Empty>
      )}
      {things.length > 0 && (
        <PlainTable
          label="In the bin"
          rows={things}
          id={(b) => `${b.kind}${b.id}`}
          columns={[
            {
              head: "What",
              cell: (b) => (
                <>
                  <strong>{b.name}</strong>{" "}
                  <Typography component="span" variant="body2" color="text.secondary">
                    {kinds[b.kind] ?? b.kind}
                    {b.folders > 0 && ` with ${count(b.folders, "folder", "folders")} in it`}
                    {b.addedBy && `, put in by ${b.addedBy}`}
                  </Typography>
                </>
              ),
            },
            { head: "From", cell: (b) => b.from ?? "—" },
            {
              head: "Binned",
              by: (b) => b.at,
              cell: (b) => (
                <>
                  {sayMoment(b.at)}
                  {b.by ? `, ${b.by}` : ", a folder plan"}
                </>
              ),
            },
            {
              head: "Gone for good",
              by: (b) => b.goneAt,
              cell: (b) =>
                b.waitsFor.length > 0 ? (
                  <StateMark mark="attention" wrap>
                    not before it is in the take-home of {b.waitsFor.join(", ")}
                  </StateMark>
                ) : (
                  sayMoment(b.goneAt)
                ),
            },
            {
              head: "",
              cell: (b) =>
                !shut && (
                  <Button
                    disabled={back.isPending}
                    onClick={() => back.mutate(b)}
                    aria-label={`Bring back ${b.name}`}
                  >
                    Bring back
                  </Button>
                ),
              align: "right",
              look: "line",
            },
          ]}
        />
      )}
      <Typography sx={{ mt: 2 }}>
        <Link component={RouterLink} to={`/classes/${id}${student ? "" : "/set-up"}`}>
          Back to the class
        </Link>
      </Typography>
    </Desk>
  );
}

const kinds: Record<string, string> = {
  File: "file",
  Link: "link",
  Page: "page",
  Folder: "folder",
  Assignment: "assignment",
};

function Slip({ student }: { student: boolean }) {
  const span = useBinSpan();
  return (
    <>
      <Typography variant="h2">For {span}</Typography>
      <Typography>
        What is binned stands here for {span}, then it is gone for good. Brought back, it stands where it
        stood, a folder with all that is in it.
      </Typography>
      <Typography>
        {student
          ? "You see what you put in yourself. What somebody else binned of yours stays until it is in your take-home, however long that takes."
          : "What a student made and somebody else binned stays until it is in that student’s take-home, however long that takes."}
      </Typography>
    </>
  );
}
