import LinearProgress from "@mui/material/LinearProgress";
import Typography from "@mui/material/Typography";
import type { ReactNode } from "react";
import type { Schemas } from "../api/client";
import { Desk } from "./Desk";
import { Problem } from "./Problem";
import { RunAway } from "./RunAway";

/** A run over many classes: at work with how far it is, and its report once it is done. */
export function RunDesk(props: {
  title: string;
  /** Null until it is read. */
  run: { state: Schemas["StepState"]; done: number; failed: number; of: number } | null;
  lead: ReactNode;
  /** What it does, for those who hear the bar. */
  doing: string;
  slip: ReactNode;
  /** The server does not answer while it runs. */
  away: boolean;
  /** What kept the run from being read. */
  problem: unknown;
  children: ReactNode;
}) {
  const { run } = props;
  const going = run?.state === "Working";
  return (
    <Desk
      title={props.title}
      wide
      lead={run && props.lead}
      slip={
        run && (
          <>
            <Typography variant="h2">
              {going ? "At work" : run.failed > 0 ? "Done, with exceptions" : "Done"}
            </Typography>
            {props.slip}
          </>
        )
      }
    >
      {props.away ? <RunAway /> : <Problem error={props.problem} />}
      {going && (
        <LinearProgress
          variant="determinate"
          value={(100 * (run.done + run.failed)) / Math.max(1, run.of)}
          aria-label={props.doing}
          sx={{ mb: 1 }}
        />
      )}
      {run && props.children}
    </Desk>
  );
}
