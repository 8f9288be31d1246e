import Alert from "@mui/material/Alert";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import MenuItem from "@mui/material/MenuItem";
import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Link as RouterLink, useSearchParams } from "react-router";
import { api, take, type Schemas } from "../../api/client";
import { useBoard, usePlans } from "../../api/queries";
import { useAct } from "../../api/useAct";
import { savedMeanwhile } from "../../api/useBegun";
import { useKeyList } from "../../parts/keys";
import { PlanPlaces } from "../../parts/PlanPlaces";
import { Problem } from "../../parts/Problem";
import { useArrival } from "../../parts/arrival";
import { useTitle } from "../../parts/title";
import { StateMark } from "../../parts/StateMark";
import { TwoWrote } from "../../parts/TwoWrote";
import { UnfoldingCounts, UnfoldingTree } from "../../parts/UnfoldingTree";
import { useDraft } from "../../parts/useDraft";
import { useMeet } from "../../parts/useMeet";
import { count, ruleWords, standsWords } from "../../parts/words";
import { BeginPlan } from "./BeginPlan";
import { insertAfter, type Line } from "./outline";
import { OutlineEditor } from "./OutlineEditor";
import { PickOne } from "../../parts/PickOne";

const keyList: [string, string][] = [
  ["Enter", "write the name; once more for the next line"],
  ["Tab, Shift Tab", "indent, outdent while writing (Esc leaves the name)"],
  ["Alt ← →", "outdent, indent"],
  ["Alt ↑ ↓", "move the line with all that stands inside"],
  ["R", "how often it stands"],
  ["W", "who may do what"],
  ["Delete", "take the line out"],
];

interface Draft {
  /** Version and names that it was begun on: what others save meanwhile is held against them. */
  version: number;
  was: Schemas["PlanTitle"];
  name: string;
  about: string;
  lines: Line[];
}

/** Lines of a plan as they are read; null for none. */
const showOutline = (lines: readonly Line[]) =>
  lines.length === 0 ? null : (
    <Box component="ul" sx={{ listStyle: "none", m: 0, p: 0 }}>
      {lines.map((l, i) => (
        <Box component="li" key={i} sx={{ pl: l.depth * 2 }}>
          <strong>{l.namePattern}</strong>, {standsWords[l.stands]}
          {(l.entries?.length ?? 0) > 0 && ` (${l.entries!.join(", ")})`}, {ruleWords[l.rule]}
        </Box>
      ))}
    </Box>
  );

/** The plan desk: the outline at the left, what it unfolds to for a real class at the right, live. */
export function PlanDesk({ me }: { me: Schemas["Me"] }) {
  const plans = usePlans();
  const [address, setAddress] = useSearchParams();
  const plan = plans.data?.find((p) => p.id === Number(address.get("plan"))) ?? plans.data?.[0];
  useKeyList(keyList);
  useTitle("Plan");
  const set = (name: string, value: string) =>
    setAddress((a) => {
      a.set(name, value);
      return a;
    });
  return (
    <Box component="main">
      <Problem error={plans.error} />
      {plan && (
        <Plan
          key={plan.id}
          me={me}
          plan={plan}
          plans={plans.data!}
          classAsked={Number(address.get("class")) || undefined}
          onPlan={(id) => set("plan", String(id))}
          onClass={(id) => set("class", String(id))}
        />
      )}
    </Box>
  );
}

function Plan(props: {
  me: Schemas["Me"];
  plan: Schemas["PlanView"];
  plans: Schemas["PlanView"][];
  classAsked?: number;
  onPlan: (id: number) => void;
  onClass: (id: number) => void;
}) {
  const { plan, me } = props;
  const heading = useArrival<HTMLHeadingElement>();
  const readOnly = me.role !== "Coordinator";
  const board = useBoard();
  const { draft, change, changed, drop } = useDraft<Draft>(`plan:${plan.id}`, {
    version: plan.version,
    was: { name: plan.name, about: plan.about },
    name: plan.name,
    about: plan.about,
    lines: plan.outline,
  });
  const [beginning, setBeginning] = useState(false);
  const known = board.data?.rows ?? [];
  const classId = known.some((r) => r.id === props.classAsked) ? props.classAsked : known[0]?.id;
  const unfolding = useQuery({
    queryKey: ["unfolding", draft.lines, classId ?? null],
    enabled: board.data !== undefined,
    placeholderData: keepPreviousData,
    retry: false,
    queryFn: () =>
      take(
        api.POST("/api/plans/unfolding", {
          body: { lines: draft.lines, class: classId ?? null, year: null, term: null },
        }),
      ),
  });
  const path = { params: { path: { planId: plan.id } } };
  const two = useMeet((decided) =>
    take(
      api.POST("/api/plans/{planId}/together", {
        ...path,
        body: {
          version: draft.version,
          was: draft.was,
          mine: { name: draft.name, about: draft.about },
          lines: draft.lines,
          decided,
        },
      }),
    ),
  );
  const save = useAct(async (_: void, headers) => {
    try {
      const { version, name, about, lines } = draft;
      return await take(
        api.PUT("/api/plans/{planId}", { ...path, body: { version, name, about, lines }, headers }),
      );
    } catch (e) {
      // Somebody saved meanwhile: nobody's lines go, the later one sees both.
      if (savedMeanwhile(e)) two.meet();
      throw e;
    }
  }, drop);
  const met = two.met;
  const takeBoth = () => {
    if (!met?.lines) return;
    const { name, about } = met.title;
    change({
      version: met.version,
      was: { name: plan.name, about: plan.about },
      name: name ?? "",
      about: about ?? "",
      lines: met.lines,
    });
    two.leave();
  };
  const paste = useAct(
    ({ text }: { text: string; at: number }) =>
      take(api.POST("/api/plans/outline", { body: { text, paths: null, class: null } })),
    (lines, { at }) => change({ ...draft, lines: insertAfter(draft.lines, at, lines) }),
  );
  return (
    <Box
      sx={{
        display: "grid",
        gridTemplateColumns: { xs: "1fr", md: "minmax(0, 46fr) minmax(0, 54fr)" },
        minHeight: "calc(100vh - var(--bar))",
      }}
    >
      <Box sx={{ px: 2.75, py: 2, borderRight: { md: 1 }, borderColor: { md: "divider" }, minWidth: 0 }}>
        <PlanPlaces me={me} />
        <Box sx={{ display: "flex", gap: 2, alignItems: "baseline" }}>
          {readOnly ? (
            <Typography variant="h1" ref={heading} tabIndex={-1}>
              {plan.name}
            </Typography>
          ) : (
            <>
              <Typography variant="h1" className="only-heard">
                Folder plan {plan.name}
              </Typography>
              <TextField
                variant="standard"
                value={draft.name}
                onChange={(e) => change({ ...draft, name: e.target.value })}
                sx={{ flex: 1 }}
                slotProps={{
                  htmlInput: { "aria-label": "Name of the plan" },
                  input: { sx: { fontFamily: "h1.fontFamily", fontSize: "1.45rem", fontWeight: 700 } },
                }}
              />
            </>
          )}
          <TextField
            select
            variant="standard"
            value={plan.id}
            onChange={(e) => props.onPlan(Number(e.target.value))}
            slotProps={{ htmlInput: { "aria-label": "Folder plan" } }}
          >
            {props.plans.map((p) => (
              <MenuItem key={p.id} value={p.id}>
                {p.name}
              </MenuItem>
            ))}
          </TextField>
        </Box>
        <Typography variant="body2" sx={{ color: "text.secondary", my: 1 }}>
          Folder plan, version {plan.version}. Used by{" "}
          <strong>{count(plan.classes, "class", "classes")}</strong>
          {plan.behind > 0 && (
            <>
              ,{" "}
              <Box component="span" sx={{ color: "warning.main" }}>
                {plan.behind} of them an older version
              </Box>
            </>
          )}
          .{changed && " What you wrote is not saved yet."}
        </Typography>
        {changed && !met && draft.version < plan.version && (
          <Alert
            severity="warning"
            sx={{ mb: 1 }}
            action={
              <Button color="inherit" disabled={two.busy} onClick={two.meet}>
                See both
              </Button>
            }
          >
            Somebody saved version {plan.version} while you were writing. What you wrote is still here.
          </Alert>
        )}
        {met ? (
          <TwoWrote
            what="plan"
            met={met}
            choices={two.choices}
            onChoose={two.choose}
            show={showOutline}
            act="Take both into my draft"
            busy={two.busy}
            onAct={takeBoth}
            onBack={two.leave}
          >
            {met.theirTitle && (
              <Typography sx={{ my: 1 }}>
                {met.by} called it “{met.theirTitle.name}”
                {met.theirTitle.about && `: ${met.theirTitle.about}`}. Yours is kept in the draft; change it
                there.
              </Typography>
            )}
          </TwoWrote>
        ) : (
          <OutlineEditor
            lines={draft.lines}
            readOnly={readOnly}
            onChange={(lines) => change({ ...draft, lines })}
            onPasteList={(text, at) => paste.mutate({ text, at })}
          />
        )}
        <Typography variant="caption" sx={{ color: "text.secondary", display: "block", mt: 1 }}>
          {readOnly
            ? "The coordinator writes the plans."
            : "Enter the next line · Tab indents · Alt+↑↓ moves · R how often · W who · paste an indented list to add it"}
        </Typography>
        <Problem error={(savedMeanwhile(save.error) ? null : save.error) ?? two.error ?? paste.error} />
        <Box
          sx={{
            display: "flex",
            gap: 1.5,
            py: 1.5,
            mt: 1,
            flexWrap: "wrap",
            position: "sticky",
            bottom: 0,
            bgcolor: "background.default",
            borderTop: 1,
            borderColor: "divider",
          }}
        >
          {changed && !met && (
            <Button
              variant="contained"
              disabled={save.isPending || unfolding.isError}
              onClick={() => save.mutate()}
            >
              Save as version {plan.version + 1}
            </Button>
          )}
          {changed && (
            <Button variant="outlined" onClick={drop}>
              Drop my changes
            </Button>
          )}
          {!changed && (
            <Button variant="contained" component={RouterLink} to={`/plan/put?plan=${plan.id}`}>
              Put version {plan.version} to classes…
            </Button>
          )}
          {!readOnly && !changed && (
            <Button variant="outlined" onClick={() => setBeginning(true)}>
              Begin another plan…
            </Button>
          )}
          {plan.lastPut != null && !changed && (
            <Button
              variant="outlined"
              component={RouterLink}
              to={`/plan/put?plan=${plan.id}&run=${plan.lastPut}`}
            >
              Last report
            </Button>
          )}
        </Box>
      </Box>
      <Box sx={{ px: 2.75, py: 2, bgcolor: "background.paper", minWidth: 0 }}>
        <Box sx={{ display: "flex", gap: 1.5, alignItems: "center", flexWrap: "wrap", mb: 1.5 }}>
          <Typography variant="h2" sx={{ whiteSpace: "nowrap" }}>
            Unfolds to, for
          </Typography>
          <PickOne
            label="Class"
            variant="standard"
            minWidth={280}
            options={known}
            value={classId ?? null}
            onChange={(k) => k !== null && props.onClass(k)}
          />
        </Box>
        <Problem error={unfolding.error ?? board.error} />
        {unfolding.data && (
          <>
            <UnfoldingCounts view={unfolding.data} />
            {new TextEncoder().encode(unfolding.data.longestPath).length > 180 && (
              <Typography variant="body2" sx={{ mb: 1 }}>
                <StateMark mark="attention">
                  The longest path has {unfolding.data.longestPath.length} characters; some computers
                  can&rsquo;t unpack much more.
                </StateMark>
              </Typography>
            )}
            <UnfoldingTree key={classId} tree={unfolding.data.tree} />
          </>
        )}
      </Box>
      {beginning && (
        <BeginPlan
          classes={known}
          onMade={(id) => {
            setBeginning(false);
            props.onPlan(id);
          }}
          onClose={() => setBeginning(false)}
        />
      )}
    </Box>
  );
}
