import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import { useEffect, useState } from "react";
import type { Schemas } from "../api/client";
import { useKeyList } from "../parts/keys";
import { later } from "../parts/later";

const FindDialog = later(() => import("./FindDialog"), "FindDialog");

const keyList: [string, string][] = [
  ["Ctrl K", "find any class or desk"],
  ["?", "this list"],
];

/** One box that finds any class, and any desk of it. */
export function FindBox({ me }: { me: Schemas["Me"] }) {
  const [open, setOpen] = useState(false);
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
      {open && <FindDialog me={me} onClose={() => setOpen(false)} />}
    </>
  );
}
