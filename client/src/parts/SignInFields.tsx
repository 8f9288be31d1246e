import TextField from "@mui/material/TextField";

/** What one signs in with. */
export interface Credentials {
  userName: string;
  password: string;
}

/** User name and password, at the door and at the one over a screen. */
export function SignInFields(props: { value: Credentials; onChange: (value: Credentials) => void }) {
  const { value, onChange } = props;
  return (
    <>
      <TextField
        label="User name"
        autoComplete="username"
        autoFocus
        value={value.userName}
        onChange={(e) => onChange({ ...value, userName: e.target.value })}
      />
      <TextField
        label="Password"
        type="password"
        autoComplete="current-password"
        value={value.password}
        onChange={(e) => onChange({ ...value, password: e.target.value })}
      />
    </>
  );
}
