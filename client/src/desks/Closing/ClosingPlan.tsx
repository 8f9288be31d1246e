import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Checkbox from "@mui/material/Checkbox";
import FormControlLabel from "@mui/material/FormControlLabel";
import LinearProgress from "@mui/material/LinearProgress";
import Link from "@mui/material/Link";
import Radio from "@mui/material/Radio";
import RadioGroup from "@mui/material/RadioGroup";
import Table from "@mui/material/Table";
import TableBody from "@mui/material/TableBody";
import TableCell from "@mui/material/TableCell";
import TableHead from "@mui/material/TableHead";
import TableRow from "@mui/material/TableRow";
import Typography from "@mui/material/Typography";
import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Link as RouterLink, useSearchParams } from "react-router";
import { api, take, type Schemas } from "../../api/client";
import { useAct } from "../../api/useAct";
import { Desk, Empty } from "../../parts/Desk";
import { Problem } from "../../parts/Problem";
import { StateMark } from "../../parts/StateMark";
import { count, sayBytes } from "../../parts/words";
import { useGoOn } from "../../parts/typed";

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
        <Table aria-label="Plan of the closing run">
          <TableHead>
            <TableRow>
              <TableCell padding="none" sx={{ width: 34 }} />
              <TableCell>Class</TableCell>
              <TableCell>What will be done</TableCell>
              <TableCell align="right" sx={{ whiteSpace: "nowrap" }}>
                Students
              </TableCell>
              <TableCell align="right" sx={{ whiteSpace: "nowrap" }}>
                Files
              </TableCell>
              <TableCell align="right" sx={{ whiteSpace: "nowrap" }}>
                Size
              </TableCell>
            </TableRow>
          </TableHead>
          <TableBody>
            {p?.classes.map((k) => (
              <TableRow key={k.id} hover>
                <TableCell padding="none">
                  {!k.skipped && (
                    <Checkbox
                      checked={!left.has(k.id)}
                      onChange={() =>
                        setLeft((l) => {
                          const next = new Set(l);
                          if (!next.delete(k.id)) next.add(k.id);
                          return next;
                        })
                      }
                      slotProps={{ input: { "aria-label": `Close ${k.name}` } }}
                    />
                  )}
                </TableCell>
                <TableCell>
                  <Link component={RouterLink} to={`/classes/${k.id}/close`}>
                    {k.name}
                  </Link>
                </TableCell>
                <TableCell sx={{ whiteSpace: "normal" }}>
                  {k.skipped ? (
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
                  )}
                </TableCell>
                <TableCell align="right" sx={{ whiteSpace: "nowrap" }}>
                  {k.students}
                </TableCell>
                <TableCell align="right" sx={{ whiteSpace: "nowrap" }}>
                  {k.skipped ? "–" : k.files}
                </TableCell>
                <TableCell align="right" sx={{ whiteSpace: "nowrap" }}>
                  {k.skipped ? "–" : sayBytes(k.bytes)}
                </TableCell>
              </TableRow>
            ))}
          </TableBody>
        </Table>
      )}
    </Desk>
  );
}
