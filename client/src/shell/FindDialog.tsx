import Box from "@mui/material/Box";
import Dialog from "@mui/material/Dialog";
import Typography from "@mui/material/Typography";
import List from "@mui/material/List";
import ListItemButton from "@mui/material/ListItemButton";
import ListItemText from "@mui/material/ListItemText";
import TextField from "@mui/material/TextField";
import { useMemo, useState } from "react";
import { useNavigate } from "react-router";
import type { Schemas } from "../api/client";
import { useBoard } from "../api/queries";
import { seasons } from "./seasonList";

interface Found {
  name: string;
  what: string;
  to: string;
}

const plain = (s: string) => s.normalize("NFD").replace(/\p{M}/gu, "").toLowerCase();
/** Where something is looked for and gone to; the board is read only while it is open. */
export function FindDialog(props: {
  me: Schemas["Me"];
  typed: string;
  onType: (text: string) => void;
  onClose: () => void;
}) {
  const { me, typed, onType, onClose } = props;
  const [at, setAt] = useState(0);
  const go = useNavigate();
  const board = useBoard();
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
    onClose();
    void go(f.to);
  };
  return (
    <Dialog open onClose={onClose} fullWidth maxWidth="sm" aria-labelledby="find-anything">
      <Typography variant="h2" id="find-anything" className="only-heard">
        Find anything
      </Typography>
      <Box sx={{ p: 2 }}>
        <TextField
          autoFocus
          fullWidth
          label="Find a class or a desk"
          value={typed}
          onChange={(e) => {
            onType(e.target.value);
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
  );
}
