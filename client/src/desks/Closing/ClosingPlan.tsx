import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Checkbox from "@mui/material/Checkbox";
import FormControlLabel from "@mui/material/FormControlLabel";
import LinearProgress from "@mui/material/LinearProgress";
import Link from "@mui/material/Link";
import Radio from "@mui/material/Radio";
import RadioGroup from "@mui/material/RadioGroup";
import Typography from "@mui/material/Typography";
import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Link as RouterLink, useSearchParams } from "react-router";
import { api, take, type Schemas } from "../../api/client";
import { useAct } from "../../api/useAct";
import { Desk, Empty } from "../../parts/Desk";
import { Problem } from "../../parts/Problem";
import { StateMark } from "../../parts/StateMark";
import { TickTable } from "../../parts/table/TickTable";
import { count, sayBytes } from "../../parts/words";
import { useGoOn } from "../../parts/typed";
import { RoomToClose } from "./RoomToClose";

const ticks: [Exclude<keyof Schemas["ClosingOptions"], "after">, string, string][] = [
  ["retireCalendar", "Retire the class calendars", "Their addresses are shut; restoring opens them again."],
  ["markNames", "Put the school year into names", "Only where a name does not say it yet."],
  ["keepCopy", "Keep a copy of each set-up", "In the lead teacher's own space, to draw on later."],
  [
    "endEnrollments",
    "End enrollments",
    "Most schools leave students on the roster: off it they see only what is returned to them. Restoring puts them back.",
  ],
];

/** The plan of a closing run: with which options, what will be done to each class, and what is passed over. */
export function ClosingPlan() {
  const [address] = useSearchParams();
  const go = useGoOn();
  const classes = (address.get("classes") ?? "").split(",").filter(Boolean).map(Number);
  const [options, setOptions] = useState<Schemas["ClosingOptions"]>({
    after: "View",
    markNames: false,
    retireCalendar: true,
    endEnrollments: false,
    keepCopy: false,
  });
  const [left, setLeft] = useState<ReadonlySet<number>>(new Set());
  const body = { classes: classes.filter((k) => !left.has(k)), options };
  const plan = useQuery({
    queryKey: ["closing-plan", classes, options],
    enabled: classes.length > 0,
    placeholderData: keepPreviousData,
    queryFn: () => take(api.POST("/api/closing/plan", { body: { classes, options } })),
  });
  const begin = useAct(
    (_: void, headers) => take(api.POST("/api/closing/runs", { body, headers })),
    (made) => go(`/close/runs/${made.id}`),
  );
  const p = plan.data;
  const going = p?.classes.filter((k) => !k.skipped && !left.has(k.id)) ?? [];
  return (
    <Desk
      title="Plan of the closing run"
      wide
      lead={
        p && (
          <>
            <strong>{count(going.length, "class", "classes")}</strong> will be closed,{" "}
            <strong>{p.skips}</strong> passed over.{" "}
            <Link component={RouterLink} to="/close">
              Back to the closing desk
            </Link>
          </>
        )
      }
      slip={
        <>
          <Typography variant="h2">How to close</Typography>
          <RadioGroup
            aria-label="Afterwards students"
            value={options.after}
            onChange={(e) => setOptions({ ...options, after: e.target.value as Schemas["AfterArchive"] })}
          >
            <FormControlLabel value="View" control={<Radio size="small" />} label="Students may still look" />
            <FormControlLabel
              value="Nothing"
              control={<Radio size="small" />}
              label="Students see nothing but their take-home"
            />
          </RadioGroup>
          {ticks.map(([key, label, why]) => (
            <Box key={key}>
              <FormControlLabel
                control={
                  <Checkbox
                    checked={options[key] ?? false}
                    onChange={(e) => setOptions({ ...options, [key]: e.target.checked })}
                  />
                }
                label={label}
              />
              <Typography
                variant="caption"
                component="div"
                sx={{ color: "text.secondary", pl: 3.75, mt: -0.5 }}
              >
                {why}
              </Typography>
            </Box>
          ))}
          <Button
            variant="contained"
            disabled={going.length === 0 || begin.isPending || plan.isFetching}
            onClick={() => begin.mutate()}
          >
            Close {count(going.length, "class", "classes")}
          </Button>
          <Typography variant="body2" sx={{ color: "text.secondary" }}>
            {count(
              going.reduce((n, k) => n + k.files, 0),
              "file",
              "files",
            )}
            , {sayBytes(going.reduce((n, k) => n + k.bytes, 0))}. Each class gets its take-homes and an
            archive package that is read back and compared; only then is it archived. Nothing is deleted;
            every class can be restored.
          </Typography>
          <RoomToClose classes={going.map((k) => k.id)} options={options} />
          <Problem error={begin.error} />
        </>
      }
    >
      <Problem error={plan.error} />
      {plan.isFetching && <LinearProgress aria-label="Working out the plan" />}
      {classes.length === 0 ? (
        <Empty title="No class is ticked.">
          <Link component={RouterLink} to="/close">
            Choose at the closing desk
          </Link>
        </Empty>
      ) : (
        <TickTable
          label="Plan of the closing run"
          rows={p?.classes ?? []}
          id={(k) => k.id}
          ticks={{
            ticked: new Set((p?.classes ?? []).filter((k) => !left.has(k.id)).map((k) => k.id)),
            set: (next) =>
              setLeft(new Set((p?.classes ?? []).filter((k) => !next.has(k.id)).map((k) => k.id))),
            may: (k) => !k.skipped,
            label: (k) => `Close ${k.name}`,
            all: "Close all that can be closed",
          }}
          columns={[
            {
              head: "Class",
              cell: (k) => (
                <Link component={RouterLink} to={`/classes/${k.id}/close`}>
                  {k.name}
                </Link>
              ),
            },
            {
              head: "What will be done",
              cell: (k) =>
                k.skipped ? (
                  <>
                    <StateMark mark="blocked">passed over</StateMark>{" "}
                    <Box component="span" sx={{ color: "text.secondary" }}>
                      {k.skipped}
                    </Box>
                  </>
                ) : left.has(k.id) ? (
                  <StateMark mark="none">left out by you</StateMark>
                ) : (
                  <>
                    take-homes, package, check, loft
                    {k.will.length > 0 && (
                      <Box component="span" sx={{ color: "text.secondary" }}>
                        {" "}
                        · {k.will.join(" · ")}
                      </Box>
                    )}
                  </>
                ),
            },
            { head: "Students", cell: (k) => k.students, align: "right", look: "line" },
            { head: "Files", cell: (k) => (k.skipped ? "–" : k.files), align: "right", look: "line" },
            {
              head: "Size",
              says: "worth",
              by: (k) => (k.skipped ? null : k.bytes),
              cell: (k) => (k.skipped ? "–" : sayBytes(k.bytes)),
              align: "right",
              look: "line",
            },
          ]}
        />
      )}
    </Desk>
  );
}
