import Menu from "@mui/material/Menu";
import MenuItem from "@mui/material/MenuItem";
import { useColorScheme } from "@mui/material/styles";
import { Link as RouterLink } from "react-router";
import { api, take, type Schemas } from "../api/client";
import { beginAnew } from "../api/standing";
import { useAct } from "../api/useAct";

/** What one does with one's own sign-in, and with the look. */
export function OwnList(props: {
  me: Schemas["Me"];
  isDemo: boolean;
  anchor: HTMLElement;
  onMove: () => void;
  onClose: () => void;
}) {
  const { me, isDemo, anchor, onMove, onClose: close } = props;
  const { mode, systemMode, setMode } = useColorScheme();
  const dark = (mode === "system" ? systemMode : mode) === "dark";
  const out = useAct(
    () => take(api.POST("/api/sign-out")),
    (o) => beginAnew(o.next),
  );
  return (
    <Menu anchorEl={anchor} open onClose={close}>
      <MenuItem
        onClick={() => {
          setMode(dark ? "light" : "dark");
          close();
        }}
      >
        {dark ? "Light theme" : "Dark theme"}
      </MenuItem>
      <MenuItem component={RouterLink} to="/password" onClick={close}>
        Change password
      </MenuItem>
      <MenuItem component={RouterLink} to="/sign-ins" onClick={close}>
        Where you are signed in
      </MenuItem>
      {me.role === "Coordinator" && (
        <MenuItem component={RouterLink} to="/audit" onClick={close}>
          Audit trail
        </MenuItem>
      )}
      {me.role === "Coordinator" && isDemo && (
        <MenuItem
          onClick={() => {
            onMove();
            close();
          }}
        >
          Move the demo's date…
        </MenuItem>
      )}
      <MenuItem
        onClick={() => {
          out.mutate(undefined);
          close();
        }}
      >
        Sign out
      </MenuItem>
    </Menu>
  );
}
