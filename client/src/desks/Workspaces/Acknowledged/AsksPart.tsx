import MenuItem from "@mui/material/MenuItem";
import TextField from "@mui/material/TextField";
import { Controller, type Control } from "react-hook-form";
import { TextPart } from "../../../parts/form/TextPart";
import { askedWords, type AsksTyped } from "./asking";

/** By whom something is to be acknowledged, and until when, as a part of a form. */
export function AsksPart({ control, asks }: { control: Control<AsksTyped>; asks: AsksTyped["asks"] }) {
  return (
    <div className="asks-part">
      <Controller
        control={control}
        name="asks"
        render={({ field }) => (
          <TextField
            select
            label="To be acknowledged"
            {...field}
            slotProps={{ select: { displayEmpty: true }, inputLabel: { shrink: true } }}
          >
            <MenuItem value="">by nobody</MenuItem>
            {Object.entries(askedWords).map(([of, words]) => (
              <MenuItem key={of} value={of}>
                {words}
              </MenuItem>
            ))}
          </TextField>
        )}
      />
      {asks !== "" && (
        <TextPart
          control={control}
          name="until"
          type="date"
          label="Until (empty for no day)"
          slotProps={{ inputLabel: { shrink: true } }}
        />
      )}
    </div>
  );
}
