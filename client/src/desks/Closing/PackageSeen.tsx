import Button from "@mui/material/Button";
import { api, take, type Schemas } from "../../api/client";
import { useAct } from "../../api/useAct";
import { Problem } from "../../parts/Problem";
import { StateMark } from "../../parts/StateMark";
import { sayDate } from "../../parts/words";
import "./loft.css";

const faults: Record<Schemas["PackageFault"], string> = {
  Missing: "not in the file store: bring it back from a backup",
  Damaged: "not as it was written: bring it back from a backup",
  Incomplete: "something of the class is not in it: restore the class and close it again",
};

/** When a package was last read, byte by byte, and what was found; read again at once by whoever may close the class. */
export function PackageSeen({ k }: { k: Schemas["LoftClass"] }) {
  const read = useAct((_: void, headers) =>
    take(
      api.POST("/api/classes/{classId}/package/reading", { params: { path: { classId: k.id } }, headers }),
    ),
  );
  if (!k.lastRead) return "–";
  return (
    <div className="package-seen">
      {k.fault ? (
        <StateMark mark="blocked" wrap>
          <span title={k.faultDetail ?? undefined}>
            {sayDate(k.lastRead)}: {faults[k.fault]}
          </span>
        </StateMark>
      ) : (
        <span>{sayDate(k.lastRead)}</span>
      )}
      {k.mayRestore && (
        <Button
          size="small"
          disabled={read.isPending}
          aria-label={`Read the package of ${k.name} again`}
          onClick={() => read.mutate()}
        >
          {read.isPending ? "Reading…" : "Read again"}
        </Button>
      )}
      <Problem error={read.error} />
    </div>
  );
}
