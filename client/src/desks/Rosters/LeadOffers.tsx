import Button from "@mui/material/Button";
import { useQuery } from "@tanstack/react-query";
import { api, take } from "../../api/client";
import { useAct } from "../../api/useAct";
import { Problem } from "../../parts/Problem";
import { sayMoment } from "../../parts/words";
import "./lead.css";

/** Classes that one is asked to lead, each with a yes and a no. */
export function LeadOffers() {
  const offers = useQuery({
    queryKey: ["lead-offers"],
    queryFn: () => take(api.GET("/api/lead-offers")),
  });
  const answer = useAct((a: { classId: number; yes: boolean }, headers) =>
    take(
      api.POST("/api/lead-offers/{classId}", {
        params: { path: { classId: a.classId } },
        body: { yes: a.yes },
        headers,
      }),
    ),
  );
  if (!offers.data?.length) return <Problem error={offers.error ?? answer.error} />;
  return (
    <section aria-label="You are asked to lead" className="lead-offers">
      {offers.data.map((o) => (
        <div key={o.class}>
          <span>
            <strong>
              {o.byName} asks you to lead {o.className}.
            </strong>{" "}
            On a yes you open, close and roll it over, and {o.byName} stays as co-teacher. Asked{" "}
            {sayMoment(o.at)}.
          </span>
          <Button
            variant="contained"
            disabled={answer.isPending}
            aria-label={`Yes, lead ${o.className}`}
            onClick={() => answer.mutate({ classId: o.class, yes: true })}
          >
            Yes, lead it
          </Button>
          <Button
            disabled={answer.isPending}
            aria-label={`No, not ${o.className}`}
            onClick={() => answer.mutate({ classId: o.class, yes: false })}
          >
            No
          </Button>
        </div>
      ))}
      <Problem error={answer.error} />
    </section>
  );
}
