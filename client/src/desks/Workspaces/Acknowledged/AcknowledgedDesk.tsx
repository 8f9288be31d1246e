import Link from "@mui/material/Link";
import { useQuery } from "@tanstack/react-query";
import { useParams, useSearchParams } from "react-router";
import { api, take, type Schemas } from "../../../api/client";
import { useHead } from "../../../api/queries";
import { ClassBar } from "../../../parts/ClassBar";
import { Desk, Empty } from "../../../parts/Desk";
import { Problem } from "../../../parts/Problem";
import { StateMark } from "../../../parts/StateMark";
import { PlainTable } from "../../../parts/table/PlainTable";
import { sayDay, sayMoment } from "../../../parts/words";
import { askedWords, sayLeft, sayUnreached } from "./asking";
import { AskedOne } from "./AskedOne";
import "./asking.css";

const kinds: Record<Schemas["ItemKind"], string> = { File: "file", Link: "link", Page: "page" };

/** What a class asks its students and their homes to acknowledge, and who has. */
export function AcknowledgedDesk() {
  const classId = Number(useParams().id);
  const head = useHead(classId);
  const [address, setAddress] = useSearchParams();
  const of = Number(address.get("of")) || undefined;
  const all = useQuery({
    queryKey: ["acknowledgements", classId],
    queryFn: () =>
      take(api.GET("/api/classes/{classId}/acknowledgements", { params: { path: { classId } } })),
  });
  const shut = head.data?.state === "Archived";
  return (
    <Desk title="Acknowledged" wide lead={head.data && <ClassBar head={head.data} />}>
      <Problem error={all.error ?? head.error} />
      {all.data?.length === 0 && (
        <Empty title="Nothing here asks to be acknowledged.">
          A page, a file or a link is asked for under its acts on the set-up desk, a notice where it is
          written.
        </Empty>
      )}
      {of !== undefined ? (
        <>
          <Link component="button" className="alone" onClick={() => setAddress({})}>
            All that this class asks
          </Link>
          <AskedOne key={of} classId={classId} askingId={of} shut={shut} />
        </>
      ) : (
        all.data &&
        all.data.length > 0 && (
          <PlainTable
            label="What is to be acknowledged"
            rows={all.data}
            id={(l) => l.id}
            columns={[
              {
                head: "What",
                main: true,
                look: "any",
                cell: (l) => (
                  <Link
                    component="button"
                    className="asking-what"
                    onClick={() => setAddress({ of: String(l.id) })}
                  >
                    {l.title}
                  </Link>
                ),
              },
              { head: "Kind", look: "soft", cell: (l) => (l.kind ? kinds[l.kind] : "notice") },
              { head: "Asked", cell: (l) => askedWords[l.of] },
              {
                head: "Until",
                by: (l) => l.until,
                says: "worth",
                cell: (l) =>
                  l.until && (
                    <StateMark mark={l.late ? "blocked" : "none"}>
                      {sayDay(l.until)}
                      {l.late && ", late"}
                    </StateMark>
                  ),
              },
              {
                head: "Done",
                align: "right",
                look: "line",
                by: (l) => (l.students === 0 ? 0 : l.done / l.students),
                says: (l) => `${l.done} of ${l.students}`,
                cell: (l) => `${l.done} of ${l.students}`,
              },
              {
                head: "Outstanding",
                by: (l) => l.ownLeft + l.homeLeft,
                cell: (l) => (
                  <StateMark mark={!l.reached ? "underway" : l.ownLeft + l.homeLeft > 0 ? "notYet" : "done"}>
                    {sayUnreached(l) || sayLeft(l)}
                  </StateMark>
                ),
              },
              {
                head: "By, since",
                look: "soft",
                by: (l) => l.askedAt,
                cell: (l) => `${l.by}, ${sayMoment(l.askedAt)}`,
              },
            ]}
          />
        )
      )}
    </Desk>
  );
}
