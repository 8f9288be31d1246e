import Button from "@mui/material/Button";
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { api, take, type Schemas } from "../../api/client";
import { useAct } from "../../api/useAct";
import { later } from "../../parts/later";
import { Problem } from "../../parts/Problem";
import { StateMark } from "../../parts/StateMark";
import { sayDate } from "../../parts/words";
import "./lead.css";

const LeadForm = later(() => import("./LeadForm"), "LeadForm");

const troubles: Record<Schemas["LeadTrouble"], string | null> = {
  None: null,
  NobodyLeads: "nobody leads this class",
  LeadIsGone: "who leads it has left the school",
  SeveralLead: "more than one leads it",
};

/** Who leads a class, what is wrong with that, and the way to another: one is asked, or the coordinator says so. */
export function LeadPart({ classId, shut }: { classId: number; shut: boolean }) {
  const path = { params: { path: { classId } } };
  const lead = useQuery({
    queryKey: ["lead", classId],
    queryFn: () => take(api.GET("/api/classes/{classId}/lead", path)),
  });
  const [asking, setAsking] = useState(false);
  const withdraw = useAct((_: void, headers) =>
    take(api.DELETE("/api/classes/{classId}/lead/offer", { ...path, headers })),
  );
  const l = lead.data;
  if (!l) return <Problem error={lead.error} />;
  const trouble = troubles[l.trouble];
  return (
    <div className="roster-lead">
      <span>
        {l.leads.length > 0 && (
          <>
            Led by <strong>{l.leads.join(" and ")}</strong>
          </>
        )}{" "}
        {trouble && <StateMark mark="attention">{trouble}</StateMark>}
        {l.offer && (
          <StateMark mark="underway">
            {l.offer.byName} asked {l.offer.toName} on {sayDate(l.offer.at)} to lead it; no answer yet
          </StateMark>
        )}
      </span>
      {!shut && l.mayOffer && l.offer && !l.maySet && (
        <Button onClick={() => withdraw.mutate()} disabled={withdraw.isPending}>
          Take the offer back
        </Button>
      )}
      {!shut && l.mayOffer && (
        <Button onClick={() => setAsking(true)}>
          {l.maySet ? "Say who leads it…" : "Ask a colleague to lead it…"}
        </Button>
      )}
      <Problem error={withdraw.error} />
      {asking && <LeadForm classId={classId} sets={l.maySet} onClose={() => setAsking(false)} />}
    </div>
  );
}
