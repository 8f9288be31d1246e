import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import MenuItem from "@mui/material/MenuItem";
import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { useSearchParams } from "react-router";
import { api, take, type Schemas } from "../../api/client";
import { useAct } from "../../api/useAct";
import { PlanPlaces } from "../../parts/PlanPlaces";
import { Problem } from "../../parts/Problem";
import { useArrival } from "../../parts/arrival";
import { useTitle } from "../../parts/title";
import { useVersioned } from "../../parts/useVersioned";
import { count } from "../../parts/words";
import { Behind } from "../../parts/Behind";
import { CalendarOffer } from "./CalendarOffer";
import { YearEffects } from "./YearEffects";
import { YearForm } from "./YearForm";
import { FileButton } from "../../parts/FileButton";

type Draft = Schemas["YearDraft"];

/** The desk of school years: the calendar at the left, what it does at the right, before it is saved. */
export function YearDesk({ me }: { me: Schemas["Me"] }) {
  const years = useQuery({ queryKey: ["years"], queryFn: () => take(api.GET("/api/years")) });
  const [address, setAddress] = useSearchParams();
  const adding = address.get("year") === "next";
  const next = useQuery({
    queryKey: ["year-draft"],
    enabled: adding,
    queryFn: () => take(api.GET("/api/years/next-draft")),
  });
  const sheet =
    years.data?.find((y) => String(y.id) === address.get("year")) ?? years.data?.[years.data.length - 1];
  useTitle("School years");
  const heading = useArrival<HTMLHeadingElement>();
  const start = adding ? next.data : sheet?.calendar;
  const key = adding ? "year:next" : `year:${sheet?.id}`;
  return (
    <Box
      component="main"
      sx={{
        display: "grid",
        gridTemplateColumns: { xs: "1fr", md: "minmax(0, 1fr) minmax(0, 1fr)" },
        minHeight: "calc(100vh - var(--bar))",
      }}
    >
      <Box sx={{ px: 2.75, py: 2, borderRight: { md: 1 }, borderColor: { md: "divider" }, minWidth: 0 }}>
        <PlanPlaces me={me} />
        <Box sx={{ display: "flex", alignItems: "baseline", gap: 2, mb: 1 }}>
          <Typography variant="h1" ref={heading} tabIndex={-1}>
            {adding ? "Next school year" : `School year ${sheet?.calendar.label ?? ""}`}
          </Typography>
          <Box sx={{ flex: 1 }} />
          <TextField
            select
            variant="standard"
            value={adding ? "next" : (sheet?.id ?? "")}
            onChange={(e) => setAddress({ year: e.target.value })}
            slotProps={{ htmlInput: { "aria-label": "School year" } }}
          >
            {(years.data ?? []).map((y) => (
              <MenuItem key={y.id} value={y.id}>
                {y.calendar.label}
              </MenuItem>
            ))}
            <MenuItem value="next">lay down the next one…</MenuItem>
          </TextField>
        </Box>
        <Problem error={years.error ?? next.error} />
        {start && (
          <Sheet
            key={key}
            start={start}
            draftKey={key}
            sheet={adding ? undefined : sheet}
            onAdded={(id) => setAddress({ year: String(id) })}
          />
        )}
      </Box>
      {/* The right half is filled by the sheet, which knows what is being written. */}
      <Box id="year-effects" sx={{ px: 2.75, py: 2, bgcolor: "background.paper", minWidth: 0 }} />
    </Box>
  );
}

function Sheet(props: {
  start: Draft;
  draftKey: string;
  sheet?: Schemas["YearSheet"];
  onAdded: (id: number) => void;
}) {
  const { draft, begun, change, changed, drop, behind, keep } = useVersioned<Draft>(
    props.draftKey,
    props.sheet?.version ?? 0,
    props.start,
  );
  const [offer, setOffer] = useState<Schemas["CalendarOffer"] | null>(null);
  const id = props.sheet?.id;
  // A date half typed is no date yet; the server is asked once all are whole.
  const whole = [...(draft.terms ?? []), ...(draft.daysOff ?? [])].every((d) => d.first && d.last);
  const preview = useQuery({
    queryKey: ["year-preview", id ?? null, draft],
    enabled: whole,
    placeholderData: keepPreviousData,
    queryFn: () =>
      take(
        api.POST("/api/years/preview", {
          params: { query: id === undefined ? {} : { year: id } },
          body: draft,
        }),
      ),
  });
  const save = useAct(
    async (_: void, headers) => {
      if (props.sheet)
        await take(
          api.PUT("/api/years/{yearId}", {
            params: { path: { yearId: props.sheet.id } },
            body: { calendar: draft, version: begun },
          }),
        );
      else return (await take(api.POST("/api/years", { body: draft, headers }))).id;
    },
    (made) => {
      drop();
      if (made) props.onAdded(made);
    },
  );
  const read = useAct(
    async (file: File) =>
      take(api.POST("/api/years/calendar-reading", { body: { year: id ?? null, text: await file.text() } })),
    setOffer,
  );
  const refusals = preview.data?.refusals ?? [];
  return (
    <>
      <Typography sx={{ color: "text.secondary", mb: 1.5 }}>
        {props.sheet
          ? `${count(props.sheet.classes, "class", "classes")} in it.`
          : "The last year moved by 52 weeks, so that every day keeps its weekday. Put right what falls otherwise."}
        {changed && " Not saved yet."}
      </Typography>
      <YearForm draft={draft} onChange={change} refusals={refusals} />
      <Behind
        behind={behind}
        theirs={"At the right stands what yours changes of theirs."}
        onTheirs={drop}
        onMine={keep}
      />
      <Problem error={save.error ?? read.error} />
      <Box
        sx={{
          display: "flex",
          gap: 1.5,
          mt: 2,
          py: 1.5,
          flexWrap: "wrap",
          position: "sticky",
          bottom: 0,
          bgcolor: "background.default",
          borderTop: 1,
          borderColor: "divider",
        }}
      >
        <Button
          variant="contained"
          disabled={
            save.isPending || !whole || refusals.length > 0 || (props.sheet !== undefined && !changed)
          }
          onClick={() => save.mutate()}
        >
          {props.sheet ? "Save the calendar" : `Lay down ${draft.label}`}
        </Button>
        {changed && (
          <Button variant="outlined" onClick={drop}>
            Drop my changes
          </Button>
        )}
        <FileButton accept=".ics,text/calendar" onFiles={([file]) => file && read.mutate(file)}>
          Read a calendar file…
        </FileButton>
        {props.sheet && (
          <Button
            variant="outlined"
            component="a"
            href={`/api/years/${props.sheet.id}/calendar.ics`}
            download
          >
            Save as .ics
          </Button>
        )}
      </Box>
      {offer && (
        <CalendarOffer
          offer={offer}
          draft={draft}
          onTake={(d) => {
            change(d);
            setOffer(null);
          }}
          onClose={() => setOffer(null)}
        />
      )}
      <YearEffects preview={preview.data} error={preview.error} changed={changed || !props.sheet} />
    </>
  );
}
