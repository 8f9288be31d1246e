import Button from "@mui/material/Button";
import Link from "@mui/material/Link";
import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import { useState } from "react";
import { Link as RouterLink } from "react-router";
import { api, ProblemError, take, type Schemas } from "../../api/client";
import { useAct } from "../../api/useAct";
import { Ask } from "../../parts/Ask";
import { YearChoice } from "../../parts/Choices";
import { StateMark } from "../../parts/StateMark";
import { Tick } from "../../parts/Tick";
import { sayDay } from "../../parts/words";
import "./feed.css";

/** Where the records are, and when they are asked. */
export function FeedForm({
  feed,
  offer,
  onClose,
}: {
  feed?: Schemas["FeedView"];
  offer: Schemas["FeedOffer"];
  onClose: () => void;
}) {
  const yearOf = (id: number | null | undefined) => offer.years.find((y) => y.id === id);
  // A feed of its own year keeps its days; for a new year, and at first, the days of the year are offered.
  const offered = yearOf(offer.year);
  const turned = offered && feed?.year !== offered.id ? offered : undefined;
  const [draft, setDraft] = useState<Schemas["FeedDraft"]>({
    address: feed?.address ?? "",
    clientId: feed?.clientId ?? "",
    secret: "",
    year: turned?.id ?? feed?.year ?? 0,
    firstDay: turned?.first ?? feed?.firstDay ?? "",
    lastDay: turned?.last ?? feed?.lastDay ?? "",
    hour: feed?.hour ?? 5,
    isOn: feed?.isOn ?? true,
    applies: feed?.applies ?? false,
  });
  const set = (part: Partial<typeof draft>) => setDraft((d) => ({ ...d, ...part }));
  const save = useAct((_: void, headers) => take(api.PUT("/api/feed", { body: draft, headers })), onClose);
  const wrong = save.error instanceof ProblemError ? save.error.field : undefined;
  const year = yearOf(draft.year);
  const choose = (id: number) => {
    const to = yearOf(id);
    set(to ? { year: id, firstDay: to.first, lastDay: to.last } : { year: id });
  };
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
      {feed && turned && (
        <Typography className="feed-turned">
          <StateMark mark="attention" wrap>
            It brings {yearOf(feed.year)?.label} until {sayDay(feed.lastDay)}. {turned.label} is proposed,
            from its first day to its last.
          </StateMark>{" "}
          {draft.year === turned.id && (
            <Button
              size="small"
              onClick={() => set({ year: feed.year, firstDay: feed.firstDay, lastDay: feed.lastDay })}
            >
              Leave it at {yearOf(feed.year)?.label}
            </Button>
          )}
        </Typography>
      )}
      <div className="feed-form">
        {text("address", "Address of the records", { className: "whole", autoFocus: true })}
        {text("clientId", "Client id")}
        {text("secret", "Secret", {
          type: "password",
          autoComplete: "off",
          helperText: feed ? "Leave blank to keep the one there" : undefined,
        })}
        <YearChoice value={draft.year} onChange={choose} />
        <TextField
          label="Hour of the day"
          value={draft.hour}
          error={wrong === "hour"}
          onChange={(e) => set({ hour: Number(e.target.value.replace(/\D/g, "")) })}
        />
        {day("firstDay", "First day")}
        {day("lastDay", "Last day")}
      </div>
      {year?.shut && (
        <Typography role="status">
          <StateMark mark="blocked" wrap>
            {year.shut}
          </StateMark>{" "}
          <Link component={RouterLink} to="/close/gate">
            To the gate
          </Link>
          . Until then it can be kept here switched off.
        </Typography>
      )}
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
