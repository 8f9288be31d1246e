import Box from "@mui/material/Box";
import { ProblemError } from "../api/client";

/** An error, said where it happened: what is wrong, and what to do. */
export function Problem({ error }: { error: unknown }) {
  if (!error) return null;
  const p = error instanceof ProblemError ? error : null;
  return (
    <Box role="alert" className="problem">
      <strong>{p?.what ?? "Something went wrong on this page."}</strong>{" "}
      {p?.mend ?? "Reload it and try again."}
    </Box>
  );
}
