import Box from "@mui/material/Box";
import Dialog from "@mui/material/Dialog";
import List from "@mui/material/List";
import ListItemButton from "@mui/material/ListItemButton";
import ListItemText from "@mui/material/ListItemText";
import TextField from "@mui/material/TextField";
import Button from "@mui/material/Button";
import { useEffect, useMemo, useState } from "react";
import { useNavigate } from "react-router";
import type { Schemas } from "../api/client";
import { useBoard } from "../api/queries";
import { useKeyList } from "../parts/keys";
import { seasons } from "./Shell";

interface Found {
  name: string;
  what: string;
  to: string;
}

const plain = (s: string) => s.normalize("NFD").replace(/\p{M}/gu, "").toLowerCase();
const keyList: [string, string][] = [
  ["Ctrl K", "find any class or desk"],
  ["?", "this list"],
];

/** One box that finds any class, and any desk of it. */
export function FindBox({ me }: { me: Schemas["Me"] }) {
  const [open, setOpen] = useState(false);
  const [typed, setTyped] = useState("");
  const [at, setAt] = useState(0);
  const go = useNavigate();
  const board = useBoard();
  useKeyList(keyList);
  useEffect(() => {
    const on = (e: KeyboardEvent) => {
      if ((e.ctrlKey || e.metaKey) && e.key.toLowerCase() === "k") {
        e.preventDefault();
        setOpen(true);
      }
    };
    window.addEventListener("keydown", on);
    return () => window.removeEventListener("keydown", on);
  }, []);
  const found = useMemo(() => {
    const places: Found[] = [
      { name: "Year board", what: "place", to: "/" },
      { name: "Loft", what: "place", to: "/loft" },
      { name: "Plan desk", what: "place", to: "/plan" },
      { name: "Make a class", what: "act", to: "/set-up" },
      { name: "Directory", what: "all people", to: "/enroll/directory" },
      { name: "Combined rosters", what: "place", to: "/enroll/combined" },
      ...(me.role === "Coordinator"
        ? [
            { name: "Deliveries", what: "place", to: "/enroll/deliveries" },
            { name: "Possible duplicates", what: "place", to: "/enroll/directory/duplicates" },
            { name: "Outbox", what: "letters", to: "/outbox" },
            { name: "Audit trail", what: "place", to: "/audit" },
          ]
        : []),
      ...(board.data?.rows ?? []).flatMap((r) =>
        seasons
          .filter((s) => s.path !== "plan")
          .map((s) => ({ name: r.name, what: s.name, to: `/classes/${r.id}/${s.path}` })),
      ),
    ];
    const words = plain(typed).split(/\s+/).filter(Boolean);
    return places.filter((p) => words.every((w) => plain(`${p.name} ${p.what}`).includes(w))).slice(0, 9);
  }, [typed, board.data, me.role]);
  const pick = (f?: Found) => {
    if (!f) return;
    setOpen(false);
    setTyped("");
    void go(f.to);
  };
  return (
    <>
      <Button
        variant="outlined"
        onClick={() => setOpen(true)}
        sx={{
          justifyContent: "space-between",
          fontWeight: 400,
          color: "text.secondary",
          borderColor: "divider",
          minHeight: 30,
        }}
      >
        Find anything
        <Box
          component="kbd"
          sx={{ fontSize: 11, border: 1, borderColor: "divider", borderRadius: 0.5, px: 0.75 }}
        >
          Ctrl K
        </Box>
      </Button>
      <Dialog open={open} onClose={() => setOpen(false)} fullWidth maxWidth="sm" aria-label="Find anything">
        <Box sx={{ p: 2 }}>
          <TextField
            autoFocus
            fullWidth
            label="Find a class or a desk"
            value={typed}
            onChange={(e) => {
              setTyped(e.target.value);
              setAt(0);
            }}
            onKeyDown={(e) => {
              if (e.key === "ArrowDown") setAt(Math.min(found.length - 1, at + 1));
              else if (e.key === "ArrowUp") setAt(Math.max(0, at - 1));
              else if (e.key === "Enter") pick(found[at]);
              else return;
              e.preventDefault();
            }}
          />
          <List dense component="div" role="listbox" aria-label="Found">
            {found.map((f, i) => (
              <ListItemButton
                key={f.to}
                role="option"
                aria-selected={i === at}
                selected={i === at}
                onClick={() => pick(f)}
              >
                <ListItemText primary={f.name} secondary={f.what} />
              </ListItemButton>
            ))}
            {found.length === 0 && <ListItemText primary="Nothing of that name." />}
          </List>
        </Box>
      </Dialog>
    </>
  );
}
