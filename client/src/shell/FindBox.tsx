import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import { useEffect, useState } from "react";
import type { Schemas } from "../api/client";
import { isTyping, useKeyList } from "../parts/keys";
import { later } from "../parts/later";

const FindDialog = later(() => import("./FindDialog"), "FindDialog");

const keyList: [string, string][] = [
  ["Ctrl K", "find any class or desk"],
  ["?", "this list"],
];

/** One box that finds any class, and any desk of it. */
export function FindBox({ me }: { me: Schemas["Me"] }) {
  const [open, setOpen] = useState(false);
  const [typed, setTyped] = useState("");
  useKeyList(keyList);
  useEffect(() => {
    const on = (e: KeyboardEvent) => {
      if ((e.ctrlKey || e.metaKey) && e.key.toLowerCase() === "k") {
        e.preventDefault();
        setTyped("");
        setOpen(true);
      }
    };
    window.addEventListener("keydown", on);
    return () => window.removeEventListener("keydown", on);
  }, []);
  useEffect(() => {
    if (!open) return;
    const on = (e: KeyboardEvent) => {
      if (e.key.length === 1 && !e.ctrlKey && !e.metaKey && !e.altKey && !isTyping(e.target)) {
        // What is typed before the box is there is in it when it is.
        setTyped((t) => t + e.key);
        e.preventDefault();
      }
    };
    window.addEventListener("keydown", on);
    return () => window.removeEventListener("keydown", on);
  }, [open]);
  return (
    <>
      <Button
        variant="outlined"
        onClick={() => {
          setTyped("");
          setOpen(true);
        }}
        sx={{
          justifyContent: "space-between",
          fontWeight: 400,
          color: "text.secondary",
          borderColor: "divider",
          minHeight: 30,
          minWidth: 0,
          px: { xs: 1.25, md: 1.75 },
        }}
      >
        <span>
          Find
          <Box component="span" sx={{ display: { xs: "none", md: "inline" } }}>
            {" anything"}
          </Box>
        </span>
        <Box
          component="kbd"
          sx={{
            display: { xs: "none", md: "inline" },
            fontSize: 11,
            border: 1,
            borderColor: "divider",
            borderRadius: 0.5,
            px: 0.75,
          }}
        >
          Ctrl K
        </Box>
      </Button>
      {open && <FindDialog me={me} typed={typed} onType={setTyped} onClose={() => setOpen(false)} />}
    </>
  );
}
