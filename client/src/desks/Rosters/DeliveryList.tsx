import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import LinearProgress from "@mui/material/LinearProgress";
import Link from "@mui/material/Link";
import Typography from "@mui/material/Typography";
import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useState, type DragEvent } from "react";
import { Link as RouterLink } from "react-router";
import { api, sendFile, take, type Schemas } from "../../api/client";
import { useSchool } from "../../api/queries";
import { YearChoice } from "../../parts/Choices";
import { Desk, Empty } from "../../parts/Desk";
import { EnrollPlaces } from "../../parts/EnrollPlaces";
import { Problem } from "../../parts/Problem";
import { StateMark } from "../../parts/StateMark";
import { count, sayMoment } from "../../parts/words";
import { useGoOn } from "../../parts/typed";
import { FeedLine } from "./FeedLine";
import { bundleOf } from "./bundleOf";
import { deliveryStates } from "./deliveryWords";
import { PlainTable } from "../../parts/table/PlainTable";
import { FileButton } from "../../parts/FileButton";

const changesOf = (d: Schemas["DeliverySummary"]) => Object.values(d.changes).reduce((n, x) => n + x, 0);

/** What the school's records sent, newest first, and where the next one is put in. */
export function DeliveryList({ me }: { me: Schemas["Me"] }) {
  const school = useSchool();
  const list = useQuery({ queryKey: ["deliveries"], queryFn: () => take(api.GET("/api/deliveries")) });
  const [yearAsked, setYear] = useState<number>();
  const year = yearAsked ?? school.data?.current;
  const all = list.data ?? [];
  const labels = new Map((school.data?.years ?? []).map((y) => [y.id, y.label]));
  return (
    <Desk
      title="Deliveries"
      wide
      lead="What the school’s records send is compared with what is here and shown to you. Nothing changes until you say so, and it can be taken back."
      slip={
        <>
          <Typography variant="h2">What can be sent</Typography>
          <Typography>
            A OneRoster bundle (1.1 or 1.2), as a zip or as its folder of tables; or any table of people, with
            a column of classes if you like.
          </Typography>
          <Typography variant="h3">What is held</Typography>
          <Typography>
            A class that would lose more than a fifth of its students, a school more than a twentieth, a list
            that came empty, a delivery for other dates, and whoever can’t be told apart: each waits for your
            yes. What you enrolled by hand, no delivery takes away.
          </Typography>
          {year !== undefined && (
            <Button component="a" href={`/api/oneroster/rosters?year=${year}`} download variant="outlined">
              Rosters of {labels.get(year)} as OneRoster
            </Button>
          )}
          {year !== undefined && (
            <Button component="a" href={`/api/rosters/table?year=${year}`} download variant="outlined">
              Rosters of {labels.get(year)} as a table
            </Button>
          )}
        </>
      }
    >
      <EnrollPlaces me={me} />
      <FeedLine />
      {year !== undefined && <PutIn year={year} onYear={setYear} />}
      <Problem error={list.error} />
      {list.data && all.length === 0 && (
        <Empty title="Nothing has been delivered yet.">
          Put in what your school’s records export, above. It is only compared and shown.
        </Empty>
      )}
      {all.length > 0 && (
        <PlainTable
          label="Deliveries"
          rows={all}
          id={(d) => d.id}
          columns={[
            {
              head: "Delivery",
              look: "any",
              cell: (d) => (
                <>
                  <Link component={RouterLink} to={`/enroll/deliveries/${d.id}`} color="text.primary">
                    <strong>{d.name}</strong>
                  </Link>{" "}
                  {d.kind === "Feed" && "by the feed"}
                </>
              ),
            },
            {
              head: "Received",
              by: (d) => d.receivedAt,
              cell: (d) => `${sayMoment(d.receivedAt)}${d.receivedBy ? `, ${d.receivedBy}` : ""}`,
            },
            { head: "School year", cell: (d) => labels.get(d.year) },
            {
              head: "Changes",
              align: "right",
              says: "worth",
              by: changesOf,
              cell: (d) => (d.state === "ColumnsOpen" ? "–" : changesOf(d).toLocaleString()),
            },
            {
              head: "On hold",
              align: "right",
              says: "worth",
              by: (d) => d.onHold,
              cell: (d) =>
                d.onHold > 0 ? <StateMark mark="attention">{d.onHold.toLocaleString()}</StateMark> : "0",
            },
            {
              head: "Findings",
              align: "right",
              says: "worth",
              by: (d) => d.findings,
              cell: (d) => d.findings.toLocaleString(),
            },
            {
              head: "Stands",
              cell: (d) => {
                const [mark, word] = deliveryStates[d.state];
                return <StateMark mark={mark}>{word}</StateMark>;
              },
            },
          ]}
        />
      )}
    </Desk>
  );
}

function PutIn({ year, onYear }: { year: number; onYear: (y: number) => void }) {
  const [over, setOver] = useState(false);
  const [part, setPart] = useState<number>();
  const [error, setError] = useState<unknown>();
  const go = useGoOn();
  const queries = useQueryClient();
  const send = async (files: File[]) => {
    if (files.length === 0) return;
    setError(undefined);
    setPart(0);
    try {
      const made = await sendFile<Schemas["Made"]>(
        `/api/deliveries/files?year=${year}`,
        await bundleOf(files),
        setPart,
      );
      await queries.invalidateQueries();
      go(`/enroll/deliveries/${made.id}`);
    } catch (e) {
      setError(e);
    } finally {
      setPart(undefined);
    }
  };
  const dropped = async (e: DragEvent) => {
    e.preventDefault();
    setOver(false);
    await send(await filesOf(e.dataTransfer));
  };
  return (
    <Box
      component="section"
      aria-label="Put in a delivery"
      onDragOver={(e) => {
        e.preventDefault();
        setOver(true);
      }}
      onDragLeave={() => setOver(false)}
      onDrop={(e) => void dropped(e)}
      sx={{
        border: "1.5px dashed",
        borderColor: over ? "primary.main" : "divider",
        borderRadius: 1,
        p: 2,
        mb: 2,
        display: "flex",
        gap: 1.5,
        alignItems: "center",
        flexWrap: "wrap",
      }}
    >
      <Typography sx={{ flex: "1 1 200px" }}>Drop a zip, a folder or a table here, or</Typography>
      <FileButton
        multiple
        variant="contained"
        label="File of a delivery"
        accept=".zip,.csv,.txt"
        disabled={part !== undefined}
        onFiles={(files) => void send(files)}
      >
        Choose a file…
      </FileButton>
      <FileButton
        folder
        multiple
        label="Folder of a delivery"
        disabled={part !== undefined}
        onFiles={(files) => void send(files)}
      >
        Choose a folder…
      </FileButton>
      <Box sx={{ minWidth: 130 }}>
        <YearChoice value={year} onChange={onYear} />
      </Box>
      {part !== undefined && (
        <Box sx={{ flexBasis: "100%" }} role="status">
          <LinearProgress
            variant={part < 1 ? "determinate" : "indeterminate"}
            value={part * 100}
            aria-label="How far"
          />
          <Typography variant="body2">
            {part < 1 ? `Sending, ${Math.round(part * 100)} %` : "Reading and comparing …"}
          </Typography>
        </Box>
      )}
      {error !== undefined && (
        <Box sx={{ flexBasis: "100%" }}>
          <Problem error={error} />
        </Box>
      )}
    </Box>
  );
}

// Of a dropped folder the tables in it are taken; what lies deeper is no bundle.
async function filesOf(data: DataTransfer): Promise<File[]> {
  const entries = [...data.items].map((i) => i.webkitGetAsEntry());
  const files: File[] = [];
  for (const entry of entries) {
    if (entry?.isDirectory) {
      const reader = (entry as FileSystemDirectoryEntry).createReader();
      const inside = await new Promise<FileSystemEntry[]>((yes, no) => reader.readEntries(yes, no));
      for (const f of inside.filter((x) => x.isFile))
        files.push(await new Promise<File>((yes, no) => (f as FileSystemFileEntry).file(yes, no)));
    } else if (entry?.isFile)
      files.push(await new Promise<File>((yes, no) => (entry as FileSystemFileEntry).file(yes, no)));
  }
  return files;
}

/** How many changes a delivery makes, said. */
export const sayChanges = (n: number) => count(n, "change", "changes");
