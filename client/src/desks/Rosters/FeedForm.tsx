import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { api, ProblemError, take, type Schemas } from "../../api/client";
import { useSchool } from "../../api/queries";
import { useAct } from "../../api/useAct";
import { Ask } from "../../parts/Ask";
import { YearChoice } from "../../parts/Choices";
import { Problem } from "../../parts/Problem";
import { StateMark } from "../../parts/StateMark";
import { sayDay, sayMoment } from "../../parts/words";
import { useGoOn } from "../../parts/typed";
import { Tick } from "../People/DirectoryDesk";

/** The roster feed: when it runs, what it last did, and how it is set up. */
export function FeedLine() {
  const feed = useQuery({ queryKey: ["feed"], queryFn: () => take(api.GET("/api/feed")) });
  const [setting, setSetting] = useState(false);
  const go = useGoOn();
  const run = useAct(
    (_: void, headers) => take(api.POST("/api/feed/run", { headers })),
    (out) => {
      if (out.delivery != null) go(`/enroll/deliveries/${out.delivery}`);
    },
  );
  const f = feed.data?.feed;
  if (!feed.data) return null;
  return (
    <Box
      component="section"
      aria-label="Roster feed"
      sx={{
        display: "flex",
        gap: 1.5,
        alignItems: "center",
        flexWrap: "wrap",
        borderBottom: 1,
        borderColor: "divider",
        pb: 1.5,
        mb: 2,
      }}
    >
      <Box sx={{ flex: "1 1 320px", minWidth: 0 }}>
        <Typography variant="h3">Roster feed</Typography>
        {f ? (
          <>
            <StateMark mark={f.quiet ? "notYet" : "done"}>
              {f.nextOn && !f.quiet
                ? `runs next on ${sayDay(f.nextOn)} at ${f.hour}:00`
                : `quiet: ${f.quiet ?? ""}`}
            </StateMark>
            {f.lastAt && (
              <Typography variant="body2">
                <StateMark mark={f.lastOk ? "done" : "blocked"}>
                  {f.lastOk ? "last run" : "last run failed"}
                </StateMark>{" "}
                {sayMoment(f.lastAt)}: {f.lastResult}
              </Typography>
            )}
          </>
        ) : (
          <Typography variant="body2">
            The school’s records can send rosters by themselves, once a day, inside the dates you set.
          </Typography>
        )}
      </Box>
      <Button variant="outlined" onClick={() => setSetting(true)}>
        {f ? "Dates and address…" : "Set up the feed…"}
      </Button>
      {f && (
        <Button variant="outlined" disabled={run.isPending} onClick={() => run.mutate()}>
          {run.isPending ? "Asking the records …" : "Run it now"}
        </Button>
      )}
      <Problem error={feed.error ?? run.error} />
      {setting && <FeedForm feed={f ?? undefined} onClose={() => setSetting(false)} />}
    </Box>
  );
}

function FeedForm({ feed, onClose }: { feed?: Schemas["FeedView"]; onClose: () => void }) {
  const school = useSchool();
  const [draft, setDraft] = useState<Schemas["FeedDraft"]>({
    address: feed?.address ?? "",
    clientId: feed?.clientId ?? "",
    secret: "",
    year: feed?.year ?? school.data?.current ?? 0,
    firstDay: feed?.firstDay ?? "",
    lastDay: feed?.lastDay ?? "",
    hour: feed?.hour ?? 5,
    isOn: feed?.isOn ?? true,
    applies: feed?.applies ?? false,
  });
  const set = (part: Partial<typeof draft>) => setDraft((d) => ({ ...d, ...part }));
  const save = useAct((_: void, headers) => take(api.PUT("/api/feed", { body: draft, headers })), onClose);
  const wrong = save.error instanceof ProblemError ? save.error.field : undefined;
  const text = (k: "address" | "clientId" | "secret", label: string, more?: object) => (
    <TextField
      label={label}
      value={draft[k] ?? ""}
      error={wrong === k}
      onChange={(e) => set({ [k]: e.target.value })}
      {...more}
    />
  );
  const day = (k: "firstDay" | "lastDay", label: string) => (
    <TextField
      type="date"
      label={label}
      value={draft[k]}
      error={wrong === k}
      onChange={(e) => set({ [k]: e.target.value })}
      slotProps={{ inputLabel: { shrink: true } }}
    />
  );
  return (
    <Ask
      open
      wide
      title="Roster feed"
      act="Save the feed"
      disabled={draft.firstDay === "" || draft.lastDay === ""}
      busy={save.isPending}
      error={save.error}
      onAct={() => save.mutate()}
      onClose={onClose}
    >
      <Box sx={{ display: "grid", gridTemplateColumns: { xs: "1fr", sm: "1fr 1fr" }, gap: 2, pt: 1 }}>
        {text("address", "Address of the records", { sx: { gridColumn: "1 / -1" }, autoFocus: true })}
        {text("clientId", "Client id")}
        {text("secret", "Secret", {
          type: "password",
          autoComplete: "off",
          helperText: feed ? "Leave blank to keep the one there" : undefined,
        })}
        <YearChoice value={draft.year} onChange={(year) => set({ year })} />
        <TextField
          label="Hour of the day"
          value={draft.hour}
          error={wrong === "hour"}
          onChange={(e) => set({ hour: Number(e.target.value.replace(/\D/g, "")) })}
        />
        {day("firstDay", "First day")}
        {day("lastDay", "Last day")}
      </Box>
      <Tick label="It runs by itself" value={draft.isOn} onChange={(isOn) => set({ isOn })} />
      <Tick
        label="What nothing holds is applied without asking me"
        value={draft.applies}
        onChange={(applies) => set({ applies })}
      />
      <Typography variant="body2" sx={{ color: "text.secondary" }}>
        Outside its dates the feed is quiet: between years it would deliver empty classes. It speaks OneRoster
        1.2 over REST and signs in by OAuth 2.
      </Typography>
    </Ask>
  );
}
