import Box from "@mui/material/Box";
import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import { useState } from "react";
import { api, ProblemError, take, type Schemas } from "../../api/client";
import { useSchool } from "../../api/queries";
import { useAct } from "../../api/useAct";
import { Ask } from "../../parts/Ask";
import { YearChoice } from "../../parts/Choices";
import { Tick } from "../../parts/Tick";

/** Where the records are, and when they are asked. */
export function FeedForm({ feed, onClose }: { feed?: Schemas["FeedView"]; onClose: () => void }) {
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
