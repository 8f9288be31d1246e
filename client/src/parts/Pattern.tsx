import Box from "@mui/material/Box";
import Chip from "@mui/material/Chip";

/** A name pattern with its placeholders as chips, not as syntax. */
export function Pattern({ text }: { text: string }) {
  return (
    <Box component="span" sx={{ fontWeight: 600 }}>
      {text
        .split(/(\{[a-z ]+\})/)
        .map((part, i) =>
          part.startsWith("{") ? (
            <Chip
              key={i}
              size="small"
              color="success"
              variant="outlined"
              label={part.slice(1, -1)}
              sx={{ height: 20, borderRadius: 0.5 }}
            />
          ) : (
            part
          ),
        )}
    </Box>
  );
}
