import Typography from "@mui/material/Typography";
import { StateMark } from "./StateMark";

/** Said while the server does not answer: what is shown is how things stood, and nothing has to be done. */
export function RunAway() {
  return (
    <Typography>
      <StateMark mark="attention" wrap>
        The server does not answer just now. This is how far the run was; it goes on by itself when the server
        is back, and so does this page.
      </StateMark>
    </Typography>
  );
}
