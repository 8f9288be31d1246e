import { useNavigate, useSearchParams } from "react-router";
import { usePlans } from "../../api/queries";
import { Desk, Empty } from "../../parts/Desk";
import { PutChoice } from "./PutChoice";
import { PutReport } from "./PutReport";

/** Puts a plan to classes: the list of changes class by class, then the run, then the report, which can be taken back. */
export function PlanPut() {
  const [address, setAddress] = useSearchParams();
  const go = useNavigate();
  const plans = usePlans();
  const planId = Number(address.get("plan"));
  const plan = plans.data?.find((p) => p.id === planId);
  const run = Number(address.get("run")) || undefined;
  // A run is known by itself: whoever comes from their news has no plan in the address.
  if (run)
    return (
      <PutReport
        key={run}
        run={run}
        onAgain={() => (plan ? setAddress({ plan: String(planId) }) : void go("/plan"))}
      />
    );
  if (plans.data && !plan)
    return (
      <Desk title="Put a plan">
        <Empty title="There is no such plan.">Choose one at the plan desk.</Empty>
      </Desk>
    );
  if (!plan) return <Desk title="Put a plan">{null}</Desk>;
  return (
    <PutChoice
      plan={plan}
      ticked={(address.get("classes") ?? "").split(",").filter(Boolean).map(Number)}
      onRun={(id) => setAddress({ plan: String(planId), run: String(id) })}
    />
  );
}
