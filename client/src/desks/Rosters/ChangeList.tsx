import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Link from "@mui/material/Link";
import TextField from "@mui/material/TextField";
import ToggleButton from "@mui/material/ToggleButton";
import ToggleButtonGroup from "@mui/material/ToggleButtonGroup";
import Typography from "@mui/material/Typography";
import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { useSearchParams } from "react-router";
import { api, take, type Schemas } from "../../api/client";
import { Problem } from "../../parts/Problem";
import { StateMark } from "../../parts/StateMark";
import { PlainTable } from "../../parts/table/PlainTable";
import { count } from "../../parts/words";
import { changeKinds, changeWords } from "./deliveryWords";

/** What a delivery changes: counted by kind, by class, one by one, narrowed and searched. */
export function ChangeList({ d }: { d: Schemas["DeliveryView"] }) {
  const [address, setAddress] = useSearchParams();
  const by = address.get("by") ?? "class";
  const [search, setSearch] = useState("");
  const [skip, setSkip] = useState(0);
  const kind = address.get("kind") as Schemas["ChangeKind"] | null;
  const className = address.get("class");
  const held = address.get("held") === "yes";
  const set = (changes: Record<string, string | null>) => {
    setSkip(0);
    setAddress((a) => {
      for (const [k, v] of Object.entries(changes))
        if (v === null) a.delete(k);
        else a.set(k, v);
      return a;
    });
  };
  const listed = by === "change";
  const classes = useQuery({
    queryKey: ["delivery-classes", d.summary.id, d.summary.version],
    enabled: !listed,
    queryFn: () =>
      take(
        api.GET("/api/deliveries/{deliveryId}/classes", { params: { path: { deliveryId: d.summary.id } } }),
      ),
  });
  const changes = useQuery({
    queryKey: ["delivery-changes", d.summary.id, d.summary.version, kind, className, held, search, skip],
    enabled: listed,
    placeholderData: keepPreviousData,
    queryFn: () =>
      take(
        api.GET("/api/deliveries/{deliveryId}/changes", {
          params: {
            path: { deliveryId: d.summary.id },
            query: {
              ...(kind && { kind }),
              ...(className && { className }),
              ...(held && { held: true }),
              ...(search && { search }),
              skip,
            },
          },
        }),
      ),
  });
  const total = Object.values(d.summary.changes).reduce((n, x) => n + x, 0);
  if (total === 0)
    return (
      <Typography sx={{ mb: 2 }}>
        <StateMark mark="done">Everything is already as this delivery has it.</StateMark>
      </Typography>
    );
  const page = changes.data;
  return (
    <Box component="section" aria-label="Changes" sx={{ mb: 2.5 }}>
      <Box sx={{ display: "flex", gap: 1.5, alignItems: "center", flexWrap: "wrap", mb: 1 }}>
        <ToggleButtonGroup
          exclusive
          size="small"
          value={by}
          onChange={(_, v: string | null) => v && set({ by: v, kind: null, class: null, held: null })}
          aria-label="Changes by"
        >
          <ToggleButton value="class">By class</ToggleButton>
          <ToggleButton value="change">One by one</ToggleButton>
        </ToggleButtonGroup>
        {changeKinds
          .filter((k) => (d.summary.changes[k] ?? 0) > 0)
          .map((k) => {
            const n = d.summary.changes[k]!;
            return (
              <Link
                key={k}
                component="button"
                variant="body2"
                underline={kind === k ? "none" : "always"}
                aria-pressed={kind === k}
                onClick={() => set({ by: "change", kind: kind === k ? null : k })}
                sx={{ fontWeight: kind === k ? 700 : 400, color: kind === k ? "text.primary" : undefined }}
              >
                {n.toLocaleString()} {changeWords[k][n === 1 ? 0 : 1]}
              </Link>
            );
          })}
      </Box>
      <Problem error={classes.error ?? changes.error} />
      {!listed && classes.data && (
        <>
          <PlainTable
            label="Changes by class"
            rows={classes.data}
            id={(k) => k.className}
            columns={[
              {
                head: "Class",
                cell: (k) => (
                  <>
                    <Link
                      component="button"
                      color="text.primary"
                      onClick={() => set({ by: "change", class: k.className })}
                      className="in-line"
                    >
                      <strong>{k.className}</strong>
                    </Link>
                    {k.isNew && " new"}
                  </>
                ),
              },
              { head: "Join", align: "right", cell: (k) => k.joins || "" },
              { head: "Leave", align: "right", cell: (k) => k.leaves || "" },
              { head: "Move in", align: "right", cell: (k) => k.movesIn || "" },
              { head: "Other", align: "right", cell: (k) => k.other || "" },
              {
                head: "On hold",
                says: "worth",
                by: (k) => k.held,
                cell: (k) =>
                  k.held > 0 && <StateMark mark="attention">{count(k.held, "on hold", "on hold")}</StateMark>,
              },
            ]}
          />
          {classes.data.length === 0 && (
            <Typography>No roster changes: the delivery is about people alone.</Typography>
          )}
        </>
      )}
      {listed && (
        <>
          <Box sx={{ display: "flex", gap: 1.5, alignItems: "center", flexWrap: "wrap", mb: 0.5 }}>
            <TextField
              label="Part of a name or class"
              value={search}
              onChange={(e) => {
                setSearch(e.target.value);
                setSkip(0);
              }}
            />
            {className && (
              <Link component="button" variant="body2" onClick={() => set({ class: null })}>
                only {className} ✕
              </Link>
            )}
            <Link component="button" variant="body2" onClick={() => set({ held: held ? null : "yes" })}>
              {held ? "Show what is free too" : "Only what is on hold"}
            </Link>
            <Box sx={{ flex: 1 }} />
            {page && (
              <Typography role="status" variant="body2">
                {count(page.total, "change", "changes")}
              </Typography>
            )}
          </Box>
          {page && (
            <PlainTable
              label="Changes one by one"
              rows={page.changes}
              id={(_, i) => i}
              columns={[
                {
                  head: "Change",
                  cell: (x) => (
                    <StateMark mark={x.held ? "attention" : "notYet"}>
                      {changeWords[x.kind][0]}
                      {x.held && ", on hold"}
                    </StateMark>
                  ),
                },
                { head: "Who", cell: (x) => x.who },
                { head: "Class", cell: (x) => x.className },
                { head: "Why", cell: (x) => x.why, look: "soft any" },
              ]}
            />
          )}
          {page && page.total > 200 && (
            <Box sx={{ display: "flex", gap: 1.5, mt: 1, alignItems: "center" }}>
              <Button variant="outlined" disabled={skip === 0} onClick={() => setSkip(skip - 200)}>
                Before
              </Button>
              <Typography variant="body2">
                {skip + 1} to {Math.min(skip + 200, page.total)}
              </Typography>
              <Button
                variant="outlined"
                disabled={skip + 200 >= page.total}
                onClick={() => setSkip(skip + 200)}
              >
                After
              </Button>
            </Box>
          )}
        </>
      )}
    </Box>
  );
}
